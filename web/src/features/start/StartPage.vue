<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, OFFLINE, type Choices, type CookSummary, type Problem } from '@/api/client'
import { loadChoices, useDraft } from '@/features/plan'
import { useUnits } from '@/shared/composables/useUnits'
import { length, mass } from '@/shared/format/units'
import { clock, day } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TapTiles from './TapTiles.vue'
import { dishOf, taps } from './taps'

const router = useRouter()
const draft = useDraft()
const { kitchen } = useUnits()
const choices = shallowRef<Choices>()
const problem = ref<Problem>()
const live = ref<CookSummary>()
const plan = ref<{ id: number; title: string }>()
const answers = ref<Record<string, string>>({})
const at = ref(0)

async function load() {
  problem.value = undefined
  choices.value = await loadChoices()
  if (!choices.value) problem.value = OFFLINE
  const cooks = await ask(() => api.GET('/api/v1/cooks'))
  live.value = cooks.data?.cooks.find((c) => !c.ended_at)
  const plans = await ask(() => api.GET('/api/v1/plans'))
  plan.value = plans.data?.plans[0]
}
onMounted(load)

const list = computed(() =>
  choices.value
    ? taps(
        choices.value,
        answers.value,
        (kg) => mass(kg, kitchen.value),
        (mm) => length(mm, kitchen.value),
      )
    : [],
)
const tap = computed(() => list.value[at.value])
const told = computed(() =>
  list.value.slice(0, at.value).map((t) => ({
    key: t.key,
    text: t.options.find((o) => o.key === answers.value[t.key])?.text ?? '',
  })),
)

function answer(key: string) {
  answers.value = { ...answers.value, [tap.value!.key]: key }
  if (at.value + 1 < list.value.length) {
    at.value++
    return
  }
  draft.begin(dishOf(choices.value!, answers.value, new Date()))
  void router.push('/plan')
}
</script>

<template>
  <div class="page">
    <section v-if="live" class="next live">
      <h1>{{ live.title }} is on the stove.</h1>
      <p>Since {{ clock(live.started_at) }}, {{ day(live.started_at, new Date()) }}.</p>
      <RouterLink :to="`/stove/${live.id}`" class="ember-button">Back to the stove</RouterLink>
    </section>
    <section v-else-if="plan && at === 0" class="next">
      <p>
        Planned: <b>{{ plan.title }}</b>
      </p>
      <RouterLink :to="`/plan/${plan.id}`" class="plain-button">Open the plan</RouterLink>
    </section>
    <ProblemNote v-if="problem" :problem="problem" again @again="load" />
    <p v-if="!choices && !problem" class="quiet" role="status">Opening the larder…</p>
    <section v-if="tap" class="taps">
      <component :is="live ? 'h2' : 'h1'" class="question">{{ tap.question }}</component>
      <TapTiles :tap="tap" @pick="answer" />
      <div class="foot">
        <button v-if="at > 0" type="button" class="plain-button" @click="at--">Back</button>
        <p class="told">
          <button
            v-for="(t, i) in told"
            :key="t.key"
            type="button"
            :aria-label="`change ${t.key}: ${t.text}`"
            @click="at = i"
          >
            {{ t.text }}
          </button>
        </p>
        <span class="count figure" role="status">{{ at + 1 }} of {{ list.length }}</span>
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
