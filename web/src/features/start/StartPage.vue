<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Beginning } from '@/api/client'
import { useDraft } from '@/features/plan/draft'
import { useLive } from '@/features/live'
import { useChoices, useSauceShelf } from '@/features/plan'
import { useClock } from '@/shared/composables/useClock'
import { useUnits } from '@/shared/composables/useUnits'
import { length, mass } from '@/shared/format/units'
import { clock, day } from '@/shared/format/time'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import BeginSentence from './BeginSentence.vue'
import BottleTile from './BottleTile.vue'
import TapTiles from './TapTiles.vue'
import { BOTTLE, tapOf, type TapKey } from './taps'
import { useTaps, type Label } from './useTaps'

const SETTLE_MS = 350 // a second tap of the same finger is no answer to the next question
const router = useRouter()
const draft = useDraft()
const live = useLive()
const now = useClock(10_000)
const { kitchen } = useUnits()
const { data: choices, error: problem, refetch } = useChoices()
const shelf = useSauceShelf(() => choices.value)
const taps = useTaps(() => choices.value, shelf.take)
const plans = useQuery({
  queryKey: ['plans', 'last'],
  queryFn: () => fetched(api.GET('/api/v1/plans', { params: { query: { limit: 1 } } })),
})
const plan = computed(() => plans.data.value?.plans[0])
const room = computed(() => (plan.value?.dish['format'] === 'kettle.dish/2' ? 'steps' : 'plan'))
/** What was planned stands above the question: it may not come in late and push it down. */
const opening = computed(() => !choices.value || plans.isPending.value)
const begun = computed(() => Object.keys(taps.told.value).length > 0)

const units = {
  mass: (kg: number) => mass(kg, kitchen.value),
  length: (mm: number) => length(mm, kitchen.value),
}
const tapFor = (key: TapKey) =>
  tapOf(key, choices.value!, taps.told.value, taps.start.value, shelf.offers.value, units)
const tap = computed(() => (choices.value ? tapFor(taps.at.value) : undefined))
const round = computed(
  () => choices.value?.cuts.find((one) => one.key === taps.told.value.cut)?.shape === 'cylinder',
)
const place = computed(() => taps.list.value.indexOf(taps.at.value))
const answers = computed(() =>
  taps.list.value.flatMap((key) => {
    const told = taps.told.value[key]
    if (told === undefined) return []
    const { options, own } = tapFor(key)
    const text = options.find((one) => one.key === told)?.text
    const figure = own && (own.unit === 'kg' ? units.mass : units.length)(Number(told))
    return [{ key, text: text ?? figure ?? told }]
  }),
)

const bottle = ref(false)
const settled = ref(true)
watch(taps.at, () => {
  bottle.value = false
  settled.value = false
  setTimeout(() => (settled.value = true), SETTLE_MS)
})

function go(found: Beginning | undefined) {
  if (!found) return
  taps.forget()
  draft.begin(found.chain)
  void router.push('/plan')
}
async function answer(key: string) {
  if (taps.at.value === 'sauce' && key === BOTTLE) bottle.value = true
  else go(await taps.answer(key))
}
const take = async (label: Label) => go(await taps.bottle(label))
const back = () => (taps.at.value = taps.list.value[place.value - 1]!)
</script>

<template>
  <div class="page">
    <section v-if="live.underWay.length" class="next live">
      <h1>
        {{
          live.underWay.length === 1
            ? `${live.underWay[0]!.title} is on the stove.`
            : `${live.underWay.length} on the stove.`
        }}
      </h1>
      <ul>
        <li v-for="cook in live.underWay" :key="cook.id">
          <RouterLink :to="`/stove/${cook.id}`" class="ember-button" :data-test="`to-${cook.id}`">
            {{ live.underWay.length === 1 ? 'Back to the stove' : cook.title }}
          </RouterLink>
          <span> since {{ clock(cook.started_at) }}, {{ day(cook.started_at, live.now) }} </span>
        </li>
      </ul>
    </section>
    <AsideNote :records="live.aside" />
    <ProblemNote v-if="problem" :problem="problem" again @again="refetch()" />
    <p v-if="opening && !problem" class="quiet" role="status">Opening the larder…</p>
    <section v-if="tap && !opening" class="taps">
      <!-- What was planned stands where the plan will write itself: nothing moves at the first tap. -->
      <BeginSentence
        :begun="begun"
        :forecast="taps.forecast.value"
        :told="taps.told.value"
        :thinking="taps.thinking.value"
        :now="now"
      >
        <template v-if="plan && !live.underWay.length">
          <p>
            Planned: <b>{{ plan.title }}</b>
          </p>
          <RouterLink :to="`/${room}/${plan.id}`" class="plain-button">Open the plan</RouterLink>
        </template>
      </BeginSentence>
      <component :is="live.underWay.length ? 'h2' : 'h1'" class="question">{{
        tap.question
      }}</component>
      <TapTiles
        :tap="tap"
        :told="taps.told.value[tap.key]"
        :hours="taps.hours.value"
        :timed="tap.key === 'heat' || tap.key === 'finish'"
        :round="round"
        :busy="taps.busy.value || !settled"
        @pick="answer"
      />
      <BottleTile v-if="bottle" @take="take" />
      <ProblemNote v-if="taps.problem.value" :problem="taps.problem.value" />
      <div class="foot">
        <el-button v-if="place > 0" class="plain-button" data-test="tap-back" @click="back">
          Back
        </el-button>
        <p class="told">
          <button
            v-for="one in answers"
            :key="one.key"
            type="button"
            :aria-label="`change ${one.key}: ${one.text}`"
            @click="taps.at.value = one.key"
          >
            {{ one.text }}
          </button>
        </p>
        <el-button v-if="begun" class="plain-button" data-test="tap-anew" @click="taps.forget">
          Begin anew
        </el-button>
        <span class="count figure" role="status"
          >{{ place + 1 }} of {{ taps.list.value.length }}</span
        >
      </div>
    </section>
  </div>
</template>

<style scoped>
.next {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
  padding-bottom: 18px;
  margin-bottom: 22px;
  border-bottom: 2px solid var(--kettle-line);
}
.next p {
  margin: 0;
  flex: 1;
  min-width: 14rem;
}
.live h1 {
  font-size: 1.7rem;
}
.live ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
}
.live li {
  display: flex;
  gap: 14px;
  align-items: center;
}
a {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}
.question {
  font-size: 2.3rem;
  margin: 8px 0 20px;
}
.foot {
  display: flex;
  gap: 20px;
  align-items: center;
  margin-top: 24px;
  min-height: 52px;
}
.told {
  flex: 1;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 2px;
}
.told button {
  border: 0;
  background: none;
  color: var(--kettle-ink);
  font: 500 1.15rem var(--kettle-display);
  cursor: pointer;
  padding: 10px 8px;
  text-decoration: underline;
  text-decoration-color: var(--kettle-ember);
  text-decoration-thickness: 2px;
  text-underline-offset: 5px;
}
.count {
  color: var(--kettle-ink-soft);
  white-space: nowrap;
}
@media (max-width: 640px) {
  .question {
    font-size: 1.7rem;
  }
  .foot {
    flex-wrap: wrap;
  }
}
</style>
