<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { api, fetched, type Ledger, type Move, type Problem } from '@/api/client'
import { useLast } from '@/shared/composables/useLast'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import LedgerFlow from './LedgerFlow.vue'
import { leftInBowl, movesOf, portionsOf, touchesRaw, USES, type PortionPlan } from './ledger'

/** Who gets what, and what met raw food: drawn from bowl to plate, stopped where it must not go on. */
const props = defineProps<{ batchG: number; moves: Move[]; kind: string }>()
const emit = defineEmits<{ change: [moves: Move[]] }>()
const SOON_MS = 120
const AGAIN_MS = 15_000
type LedgerBody = { batch_g: number; moves: Move[] }
const third = computed(() => Math.max(5, Math.round(props.batchG / 3 / 5) * 5))
const portions = ref<PortionPlan[]>(props.moves.length ? portionsOf(props.moves) : usual())
const left = computed(() => leftInBowl(props.batchG, portions.value))

/** What a batch of this kind is usually split into. */
function usual(): PortionPlan[] {
  const share = Math.max(5, Math.floor(props.batchG / 3 / 5) * 5)
  const plan = (name: string, use: PortionPlan['use'], mass: number): PortionPlan => ({
    name,
    mass_g: mass,
    use,
    later: false,
    boil: false,
  })
  if (props.kind === 'rub') return [plan('rub bowl', 'rub', Math.floor(props.batchG * 0.7))]
  if (props.kind === 'marinade')
    return [plan('marinade', 'raw', 2 * share), plan('table', 'table', share)]
  return [plan('coats', 'coat', 2 * share), plan('table', 'table', share)]
}

const asked = refDebounced(
  computed(() =>
    JSON.stringify({ batch_g: Math.max(1, props.batchG), moves: movesOf(portions.value) }),
  ),
  SOON_MS,
)
const query = useQuery<Ledger, Problem>({
  queryKey: ['ledger', asked],
  queryFn: ({ signal }) =>
    fetched(
      api.POST('/api/v1/sauces/ledger', { body: JSON.parse(asked.value) as LedgerBody, signal }),
    ),
  staleTime: Infinity,
  retry: false,
  refetchInterval: ({ state }) => (state.error?.status === 0 ? AGAIN_MS : false),
})
const ledger = useLast(query.data)
const problem = query.error
// A split that nobody has touched is only a proposal; one that cannot be followed is not kept.
let touched = false
watch(portions, () => (touched = true), { deep: true })
watch(query.data, (found) => {
  if (found && touched) emit('change', (JSON.parse(asked.value) as LedgerBody).moves)
})

function add() {
  const names = portions.value.map((p) => p.name)
  let n = portions.value.length + 1
  while (names.includes(`portion ${n}`)) n++
  portions.value.push({
    name: `portion ${n}`,
    mass_g: Math.max(5, Math.min(third.value, Math.floor(left.value))),
    use: 'coat',
    later: false,
    boil: false,
  })
}
</script>

<template>
  <div class="panel">
    <div class="rows">
      <fieldset v-for="(p, i) in portions" :key="i">
        <legend class="visually-hidden">Portion {{ p.name }}</legend>
        <el-input v-model="p.name" class="name" aria-label="Name of the portion" maxlength="40" />
        <NumberField
          :model-value="p.mass_g"
          label="Amount"
          unit="g"
          :step="5"
          @update:model-value="p.mass_g = $event ?? 0"
        />
        <PickField
          v-model="p.use"
          label="What happens to it"
          :options="USES"
          :data-test="`use-${i}`"
        />
        <div v-if="touchesRaw(p.use)" class="ticks">
          <el-checkbox v-model="p.later" :data-test="`later-${i}`">
            wanted on the plate later
          </el-checkbox>
          <el-checkbox v-if="p.later" v-model="p.boil" :data-test="`boil-${i}`">
            boil it in between
          </el-checkbox>
        </div>
        <button
          type="button"
          class="gone"
          :aria-label="`remove ${p.name}`"
          @click="portions.splice(i, 1)"
        >
          ×
        </button>
      </fieldset>
      <p class="quiet figure">
        {{
          left >= 0
            ? `${Math.round(left)} g stay in the bowl.`
            : `${Math.round(-left)} g more than there is.`
        }}
        <el-button class="plain-button" @click="add">Another portion</el-button>
      </p>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="ledger">
      <LedgerFlow :portions="portions" :ledger="ledger" :batch-g="batchG" />
      <p v-for="s in ledger.stops" :key="s.place" class="stop" role="alert">
        <b>Stop.</b> {{ s.why }}.
        <el-button
          class="plain-button"
          data-test="boil-it"
          @click="portions.filter((p) => p.name === s.portion).forEach((p) => (p.boil = true))"
        >
          Boil it, {{ Math.ceil(s.boil_min) }} min
        </el-button>
      </p>
      <p class="quiet">{{ ledger.guidance }}</p>
    </template>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
fieldset {
  border: 0;
  margin: 0 0 12px;
  padding: 0;
  display: flex;
  gap: 14px;
  align-items: end;
  flex-wrap: wrap;
  position: relative;
}
.name {
  width: 150px;
}
.pick {
  width: 220px;
}
.ticks {
  display: grid;
}
.gone {
  border: 0;
  background: transparent;
  color: var(--kettle-ink-soft);
  font-size: 1.5rem;
  min-height: 52px;
  min-width: 44px;
  cursor: pointer;
}
.stop {
  margin: 0;
  border-left: 6px solid var(--kettle-stop);
  background: var(--kettle-stop-soft);
  padding: 10px 14px;
}
p {
  margin: 0;
}
</style>
