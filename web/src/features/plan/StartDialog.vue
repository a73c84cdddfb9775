<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Live, Problem } from '@/api/client'
import { useLive } from '@/features/live'
import { clock, earlier, secondsUntil } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** What is settled before a cook begins: the stops that stand, and whether it waits for its start. */
const open = defineModel<boolean>({ required: true })
interface Stop {
  id: string
  level: string
  message: string
  why: string
  repair: unknown
  repair_says?: string
}
type Accepted = { stop: string; reason: string }[]
const props = defineProps<{
  forecast: { start_at: string; serve_at: string; watch_outs: Stop[] }
  /** Asked for; null for as soon as it can be. */
  serveAt?: string | null
  now: Date
  /** Begins the cook. */
  send: (accepted: Accepted, when: 'now' | 'planned') => Promise<{ data?: Live; problem?: Problem }>
}>()
const emit = defineEmits<{ repair: [repair: unknown] }>()
const SHORTEST_WAIT_S = 120
const LEAST_REASON = 3

const router = useRouter()
const live = useLive()
const reasons = reactive<Record<string, string>>({})
const problem = ref<Problem>()
const busy = ref(false)
// One that stands at several steps is answered once.
const stops = computed(() => [
  ...new Map(
    props.forecast.watch_outs.filter((w) => w.level === 'stop').map((w) => [w.id, w]),
  ).values(),
])
const answered = computed(() =>
  stops.value.every((w) => (reasons[w.id] ?? '').trim().length >= LEAST_REASON),
)
const waitsS = computed(() => secondsUntil(props.forecast.start_at, props.now))
const waits = computed(() => Boolean(props.serveAt) && waitsS.value >= SHORTEST_WAIT_S)
const earliest = computed(() => earlier(props.forecast.serve_at, waitsS.value))

/** The repaired plan is looked at before it is begun. */
function repair(stop: Stop) {
  open.value = false
  emit('repair', stop.repair)
}

async function start(when: 'now' | 'planned') {
  busy.value = true
  const accepted = stops.value.map((w) => ({ stop: w.id, reason: reasons[w.id]!.trim() }))
  const { data, problem: found } = await props.send(accepted, when)
  busy.value = false
  problem.value = found
  if (!data) return
  open.value = false
  live.taken(data)
  void router.push(`/stove/${data.id}`)
}

/** Begin at once where there is nothing to settle, or where it does not wait for its start. */
function begin(atOnce = false) {
  if (stops.value.length || (waits.value && !atOnce)) open.value = true
  else void start('now')
}
defineExpose({ begin, busy, problem })
</script>

<template>
  <el-dialog
    v-model="open"
    :title="stops.length ? 'Not like this' : 'Now, or as planned?'"
    width="min(640px, 94vw)"
    class="kettle-dialog"
    data-test="start-dialog"
  >
    <div v-for="stop in stops" :key="stop.id" class="stop" :data-test="`stop-${stop.id}`">
      <b>{{ stop.message }}</b>
      <p>{{ stop.why }}</p>
      <el-button
        v-if="stop.repair_says"
        class="ember-button"
        :data-test="`repair-${stop.id}`"
        @click="repair(stop)"
      >
        {{ stop.repair_says }}
      </el-button>
      <label :for="`why-${stop.id}`"
        >Or say why you start all the same. It stands in the log.</label
      >
      <el-input
        :id="`why-${stop.id}`"
        v-model="reasons[stop.id]"
        maxlength="300"
        :data-test="`reason-${stop.id}`"
      />
    </div>
    <p v-if="waits" class="times figure">
      As planned: start {{ clock(forecast.start_at) }}, eat about {{ clock(forecast.serve_at) }}.
      Now: eat about {{ clock(earliest) }}.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="two">
      <el-button
        v-if="waits"
        class="ember-button"
        :disabled="!answered || busy"
        data-test="start-planned"
        @click="start('planned')"
      >
        Call me at {{ clock(forecast.start_at) }}
      </el-button>
      <el-button
        :class="waits || stops.length ? 'plain-button' : 'ember-button'"
        :disabled="!answered || busy"
        data-test="start-now"
        @click="start('now')"
      >
        {{ waits ? `Start now, eat ${clock(earliest)}` : 'Start all the same' }}
      </el-button>
    </div>
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
.stop .el-input {
  --el-input-height: 48px;
}
.ember-button {
  justify-self: start;
}
.times {
  font-size: 1.1rem;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
}
.two .el-button {
  margin: 0;
}
</style>
