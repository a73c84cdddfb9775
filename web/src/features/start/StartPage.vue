<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched } from '@/api/client'
import { useLive } from '@/features/live'
import { useChoices, useDraft } from '@/features/plan'
import { useUnits } from '@/shared/composables/useUnits'
import { length, mass } from '@/shared/format/units'
import { clock, day } from '@/shared/format/time'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TapTiles from './TapTiles.vue'
import { dishOf, taps } from './taps'

const router = useRouter()
const draft = useDraft()
const live = useLive()
const { kitchen } = useUnits()
const { data: choices, error: problem, refetch } = useChoices()
const plans = useQuery({
  queryKey: ['plans', 'last'],
  queryFn: () => fetched(api.GET('/api/v1/plans', { params: { query: { limit: 1 } } })),
})
const plan = computed(() => plans.data.value?.plans[0])
/** What was planned stands above the question: it may not come in late and push it down. */
const opening = computed(() => !choices.value || plans.isPending.value)
const answers = ref<Record<string, string>>({})
const at = ref(0)

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
    <section v-else-if="plan && at === 0" class="next">
      <p>
        Planned: <b>{{ plan.title }}</b>
      </p>
      <RouterLink :to="`/plan/${plan.id}`" class="plain-button">Open the plan</RouterLink>
    </section>
    <AsideNote :records="live.aside" />
    <ProblemNote v-if="problem" :problem="problem" again @again="refetch()" />
    <p v-if="opening && !problem" class="quiet" role="status">Opening the larder…</p>
    <section v-if="tap && !opening" class="taps">
      <component :is="live.underWay.length ? 'h2' : 'h1'" class="question">{{
        tap.question
      }}</component>
      <TapTiles :tap="tap" @pick="answer" />
      <div class="foot">
        <el-button v-if="at > 0" class="plain-button" @click="at--">Back</el-button>
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
