<script setup lang="ts">
/** Two cooks side by side: the one in hand, and another of yours or off the shelf. */
import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Chain, type ChainForecast, type Problem } from '@/api/client'
import { usePlans } from './usePlans'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import BackToPlan from './BackToPlan.vue'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { capital } from '@/shared/format/words'
import TwoLines from './TwoLines.vue'
import { rows } from './compare'
import { usePlan, useTemplates } from './usePlan'

const { draft, forecast: mine, problem, stale, refresh } = usePlan(() => undefined)
const { known, here } = useKitchenFigures()
const templates = useTemplates()
const { plans } = usePlans(ref(''))
const chosen = ref('')
const others = computed(() => [
  ...(plans.value ?? [])
    .filter((plan) => plan.id !== draft.planId)
    .map((plan) => ({
      key: `plan:${plan.id}`,
      text: `${plan.title}, yours`,
      chain: plan.dish as unknown as Chain,
    })),
  ...(templates.data.value ?? []).map((one) => ({
    key: one.key,
    text: one.document.name || one.key,
    chain: one.document,
  })),
])
const other = computed(() => others.value.find((one) => one.key === chosen.value)?.chain)
const asks = computed(() =>
  other.value ? { ...other.value, serve_at: draft.chain?.serve_at ?? null } : undefined,
)
const theirs = useQuery<ChainForecast, Problem>({
  queryKey: ['chain', 'beside', here, asks],
  queryFn: ({ signal }) => fetched(api.POST('/api/v1/forecasts', { body: asks.value!, signal })),
  enabled: computed(() => Boolean(asks.value)),
  retry: false,
})
const beside = computed(() => (other.value ? theirs.data.value : undefined))
const table = computed(() =>
  mine.value && beside.value
    ? rows(mine.value, beside.value, known.value?.settings.price_kwh ?? null)
    : [],
)
const both = computed(() => [mine.value, beside.value].flatMap((one) => one ?? []))
</script>

<template>
  <div class="page compare">
    <div class="tools no-print">
      <BackToPlan />
    </div>
    <h1>Which of the two?</h1>
    <p v-if="!draft.chain">Nothing is planned here. Pick a cook first.</p>
    <template v-else>
      <ProblemNote v-if="problem" :problem="problem" again @again="refresh()" />
      <div class="pick">
        <PickField
          v-model="chosen"
          label="Beside it"
          placeholder="another cook"
          :options="others.map(({ key, text }) => ({ key, text }))"
          data-test="compare-with"
        />
      </div>
      <ProblemNote v-if="theirs.error.value" :problem="theirs.error.value" />
      <p v-if="!mine && !problem" class="quiet" role="status">Working out the times…</p>
      <p v-else-if="!chosen" class="quiet">
        Pick one of yours or one off the shelf: time, hands, the window, crust and energy stand side
        by side.
      </p>
      <p v-else-if="!beside && !theirs.error.value" class="quiet" role="status">
        Working out the other…
      </p>
      <TwoLines v-if="table.length" :two="both" />
      <table v-if="table.length" :aria-busy="stale" data-test="compare-table">
        <thead>
          <tr>
            <td />
            <th v-for="(one, i) in both" :key="i" scope="col">{{ one.title }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in table" :key="row.what">
            <th scope="row">{{ row.what }}</th>
            <td
              v-for="(says, i) in row.says"
              :key="i"
              class="figure"
              :class="{ better: row.better === i }"
            >
              {{ says }}<span v-if="row.better === i" class="visually-hidden"> (better)</span>
            </td>
          </tr>
        </tbody>
      </table>
      <section v-for="(one, i) in table.length ? both : []" :key="`line-${i}`" class="one">
        <h2>{{ one.title }}</h2>
        <p>{{ capital(one.sentence.map((clause) => clause.text).join(', ')) }}.</p>
        <GlazeStrip v-for="fire in one.fires" :key="fire.stage" :glaze="fire.glaze" compact />
      </section>
    </template>
  </div>
</template>

<style scoped>
.compare {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
h1 {
  font-size: 2.1rem;
  margin: 4px 0 0;
}
.pick {
  max-width: 520px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 1.1rem;
}
th,
td {
  padding: 9px 14px 9px 0;
  text-align: left;
  vertical-align: top;
  border-bottom: 1px solid var(--kettle-line);
}
thead th {
  font: 700 1.2rem/1.25 var(--kettle-display);
}
tbody th {
  font-weight: 400;
  color: var(--kettle-ink-soft);
  width: 24%;
}
.better {
  font-weight: 700;
  box-shadow: inset 0 -3px 0 var(--kettle-ember);
}
.one {
  margin-top: 20px;
}
h2 {
  font-size: 1.3rem;
}
@media (max-width: 640px) {
  h1 {
    font-size: 1.6rem;
  }
  table {
    font-size: 1rem;
  }
  tbody th {
    width: 28%;
  }
  th,
  td {
    padding-right: 8px;
  }
}
</style>
