<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useQueryClient } from '@tanstack/vue-query'
import { api, ask, type Meal, type Problem } from '@/api/client'
import { useClock } from '@/shared/composables/useClock'
import { clock, day } from '@/shared/format/time'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ChangedNote from '@/shared/ui/ChangedNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ServeField from '@/shared/ui/ServeField.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import FireLine from './FireLine.vue'
import MealBuy from './MealBuy.vue'
import MealList from './MealList.vue'
import MealParts from './MealParts.vue'
import MealPrepare from './MealPrepare.vue'
import MealShelf from './MealShelf.vue'
import MealVerdict from './MealVerdict.vue'
import NightNote from './NightNote.vue'
import { withAway, type Away } from './nights'
import { useMeal, useMealChoices } from './useMeal'
import { useMealShelf } from './useMealShelf'

const route = useRoute()
const router = useRouter()
const now = useClock(30_000)
const id = () => (route.params.id ? Number(route.params.id) : undefined)
const { draft, edit, mend, take, taken, undo, keeping, plan, problem, thinking, refresh, stop } =
  useMeal(id)
const { data: choices } = useMealChoices()
const shelf = useMealShelf()
const shown = ref('')
const when = ref(false)
const meal = computed(() => draft.meal)
const some = computed(() => (meal.value?.dishes.length ?? 0) + (meal.value?.sides?.length ?? 0) > 0)
const names = computed(() => new Map((plan.value?.lines ?? []).map((line) => [line.id, line.name])))
watch(
  () => draft.id,
  (next) => next && next !== id() && void router.replace(`/meal/${next}`),
)
const wanted = computed(() => meal.value?.serve_at ?? plan.value?.serve_at ?? '')
const atText = computed(() => {
  if (!meal.value?.serve_at) return 'as soon as it can be'
  const on = day(meal.value.serve_at, now.value)
  return `at ${clock(meal.value.serve_at)}${on === 'today' ? '' : ` ${on}`}`
})
function begin(next: Meal) {
  draft.begin(JSON.parse(JSON.stringify(next)) as Meal)
  void keeping.keep()
}
function open(next: Meal, as: number, version: number) {
  draft.begin(next, as, version)
}
/** What could not be kept stays here, with the reason. */
async function leave() {
  if (!(await keeping.settled())) return
  draft.begin(null)
  void router.push('/meal')
}
function move(minutes: number) {
  const from = new Date(wanted.value).getTime() + minutes * 60_000
  edit((next) => (next.serve_at = new Date(from).toISOString()))
}
const sleep = (nights: Away[]) =>
  edit((next) => (next.quiet = withAway(next.quiet ?? [], nights, now.value)))
const REHEARSED = 30
const client = useQueryClient()
const busy = ref(false)
const refused = ref<Problem>()
/** Every dish begins on the Stove, as this plan says. */
async function cook(speed?: number) {
  busy.value = true
  const kept = await keeping.settled()
  busy.value = kept
  if (!kept) return
  const body = { accepted: [], rehearsal: speed ? { speed } : null }
  const params = { path: { id: draft.id! } }
  const { data, problem: found } = await ask(() =>
    api.POST('/api/v1/meals/{id}/cooks', { params, body }),
  )
  busy.value = false
  refused.value = found
  if (!data) return
  await client.invalidateQueries({ queryKey: ['live'] })
  void router.push('/stove')
}
const print = () => window.print()
</script>

<template>
  <div class="page">
    <template v-if="meal">
      <header>
        <el-button class="plain-button no-print" data-test="all-meals" @click="leave">
          All meals
        </el-button>
        <h1>
          <el-input
            :model-value="meal.name ?? ''"
            aria-label="What you call it"
            placeholder="A meal"
            maxlength="80"
            @input="(name: string) => edit((next) => (next.name = name))"
          />
        </h1>
        <el-button
          class="plain-button when no-print"
          :aria-expanded="when"
          data-test="when"
          @click="when = !when"
        >
          On the table {{ atText }}
        </el-button>
      </header>
      <ServeField
        v-if="when"
        class="no-print"
        :serve-at="meal.serve_at ?? null"
        @change="(at: string | null) => edit((next) => (next.serve_at = at))"
      />
      <ChangedNote
        v-if="keeping.changed.value"
        what="This meal"
        @theirs="keeping.takeTheirs"
        @mine="keeping.keepMine"
      />
      <ProblemNote v-if="keeping.missing.value" :problem="keeping.missing.value" />
      <ProblemNote v-if="keeping.unkept.value" :problem="keeping.unkept.value" />
      <ProblemNote v-if="problem" :problem="problem" again @again="refresh" />
      <template v-if="plan">
        <MealVerdict :plan="plan" :now="now" :thinking="thinking" @mend="mend" />
        <NightNote v-if="!thinking" :tasks="plan.tasks" :now="now" @sleep="sleep" />
        <p v-if="thinking" class="thinking no-print" role="status">
          {{ plan.first ? 'A first plan. Looking for a better one…' : 'Arranging the evening…' }}
          <el-button text data-test="stop" @click="stop">Leave it as it is</el-button>
        </p>
        <p v-else-if="plan.first" class="thinking no-print" role="status">
          A first plan: there may be a better one.
          <el-button text data-test="go-on" @click="refresh">Go on looking</el-button>
        </p>
        <FireLine
          v-if="plan.feasible"
          class="no-print"
          :plan="plan"
          :wanted="wanted"
          :dim="thinking"
          :shown="shown"
          :away="meal.quiet ?? []"
          @move="move"
          @show="(key: string) => (shown = shown === key ? '' : key)"
        />
      </template>
      <p v-else-if="!some" class="quiet">
        Put two dishes on the table, and say when. The evening draws itself.
      </p>
      <p v-else-if="!problem" class="quiet" role="status">Arranging the evening…</p>
      <UndoNote v-if="taken" :says="taken.says" @undo="undo" />
      <MealParts
        class="parts"
        :meal="meal"
        :choices="choices"
        :names="names"
        :supper="wanted"
        :helpings="plan?.helpings ?? null"
        :now="now"
        @edit="edit"
        @take="take"
      />
      <template v-if="plan?.feasible">
        <div class="under">
          <h2>What to do when</h2>
          <template v-if="draft.id && meal.dishes.length">
            <el-button
              class="ember-button no-print"
              :disabled="busy || thinking"
              data-test="cook-meal"
              @click="cook()"
            >
              Cook it
            </el-button>
            <el-button
              class="plain-button no-print"
              :disabled="busy || thinking"
              data-test="rehearse-meal"
              @click="cook(REHEARSED)"
            >
              Rehearse it, {{ REHEARSED }} times as fast
            </el-button>
          </template>
          <el-button class="plain-button no-print" @click="print">Print it</el-button>
          <a
            v-if="draft.id"
            class="plain-button no-print"
            :href="`/api/v1/meals/${draft.id}/calendar`"
            download="supper.ics"
            >Into a calendar</a
          >
        </div>
        <ProblemNote v-if="refused" :problem="refused" />
        <MealList :plan="plan" :now="now" :shown="shown" @show="(key: string) => (shown = key)" />
        <MealPrepare class="prepare" :plan="plan" :now="now" />
        <MealBuy class="buy" :shopping="plan.shopping" />
        <p class="quiet">{{ plan.guidance }}</p>
      </template>
    </template>
    <template v-else>
      <h1>Meal</h1>
      <ProblemNote v-if="keeping.missing.value" :problem="keeping.missing.value" />
      <ProblemNote v-if="shelf.problem.value" :problem="shelf.problem.value" />
      <UndoNote
        v-if="shelf.dropped.value"
        :says="`“${shelf.dropped.value.title}” is deleted.`"
        @undo="shelf.undo"
      />
      <AsideNote :records="shelf.aside.value" />
      <MealShelf
        :meals="shelf.meals.value"
        :choices="choices"
        @begin="begin"
        @open="open"
        @drop="shelf.drop"
      />
    </template>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
  margin-bottom: 12px;
}
h1 {
  font-size: 2rem;
}
header h1 {
  flex: 1 1 300px;
}
header .el-input :deep(input) {
  font: 700 1.5rem var(--kettle-display);
  color: var(--kettle-ink);
}
header .el-input :deep(.el-input__wrapper) {
  box-shadow: none;
  background: none;
  padding: 0 4px;
}
.thinking {
  margin: 0 0 6px;
}
.parts {
  margin-top: 18px;
}
.under {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
  margin: 22px 0 10px;
}
.prepare,
.buy {
  margin-top: 26px;
}
@media print {
  .prepare {
    break-before: page;
  }
}
.under h2 {
  flex: 1;
}
</style>
