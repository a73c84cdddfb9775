<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Chain, type ChainForecast, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useChainDraft } from './draft'

/** What is settled before a cook begins: the stops that stand. */
const props = defineProps<{ forecast: ChainForecast; chain: Chain }>()
const LEAST_REASON = 3
const router = useRouter()
const live = useLive()
const draft = useChainDraft()
const open = ref(false)
const busy = ref(false)
const problem = ref<Problem>()
const reasons = reactive<Record<string, string>>({})
const stops = computed(() => [
  ...new Map(
    props.forecast.watch_outs.filter((w) => w.level === 'stop').map((w) => [w.id, w]),
  ).values(),
])
const answered = computed(() =>
  stops.value.every((w) => (reasons[w.id] ?? '').trim().length >= LEAST_REASON),
)

function begin() {
  if (stops.value.length) open.value = true
  else void start()
}

async function start() {
  busy.value = true
  const accepted = stops.value.map((w) => ({ stop: w.id, reason: reasons[w.id]!.trim() }))
  const { data, problem: found } = await ask(() =>
    api.POST('/api/v1/cooks/chains', { body: { chain: props.chain, accepted } }),
  )
  busy.value = false
  problem.value = found
  if (!data) return
  open.value = false
  live.taken(data)
  void router.push(`/stove/${data.id}`)
}

function repair(operations: Record<string, unknown>[]) {
  open.value = false
  draft.patch(operations)
}
defineExpose({ begin, busy })
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <el-dialog v-model="open" title="Not like this" width="min(640px, 94vw)" class="kettle-dialog">
    <div v-for="stop in stops" :key="stop.id" class="stop" :data-test="`stop-${stop.id}`">
      <b>{{ stop.message }}</b>
      <p>{{ stop.why }}</p>
      <el-button v-if="stop.repair_says" class="ember-button" @click="repair(stop.repair)">
        {{ stop.repair_says }}
      </el-button>
      <label :for="`why-${stop.id}`"
        >Or say why you start all the same. It stands in the log.</label
      >
      <el-input :id="`why-${stop.id}`" v-model="reasons[stop.id]" maxlength="300" />
    </div>
    <el-button class="plain-button" :disabled="!answered || busy" @click="start">
      Start all the same
    </el-button>
  </el-dialog>
</template>

<style scoped>
.stop {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  margin-bottom: 14px;
  border-left: 6px solid var(--kettle-stop);
  background: var(--kettle-stop-soft);
}
.stop p {
  margin: 0;
}
.ember-button {
  justify-self: start;
}
</style>
