<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Meal, type MealChoices, type Schedule } from '@/api/client'
import { useTemplates } from '@/features/plan'
import PickField from '@/shared/ui/PickField.vue'
import AwayField from './AwayField.vue'
import GuestsField from './GuestsField.vue'

/** What is on the table: dishes of kept plans or shipped chains, sides, pairs of hands, and when
 * there are none. */
const props = defineProps<{
  meal: Meal
  choices: MealChoices | undefined
  names: Map<string, string>
  supper: string
  helpings: Schedule['helpings']
  now: Date
}>()
const emit = defineEmits<{
  edit: [change: (next: Meal) => void]
  take: [id: string, name: string]
}>()
const MOST_DISHES = 10
const MOST_SIDES = 6
const MOST_HANDS = 4
const templates = useTemplates()
const plans = useQuery({
  queryKey: ['plans', 'for-meals'],
  queryFn: () => fetched(api.GET('/api/v1/plans', { params: { query: { limit: 100 } } })),
})
const dish = ref('')
const side = ref('')
const dishes = computed(() => [
  ...(plans.data.value?.plans ?? []).map((p) => ({ key: `plan ${p.id}`, text: p.title })),
  ...(templates.data.value ?? []).map((t) => ({
    key: `template ${t.key}`,
    text: t.document.name || t.key,
  })),
])
const sides = computed(() =>
  (props.choices?.sides ?? []).map((s) => ({ key: s.key, text: s.name })),
)
const taken = computed(() => [
  ...props.meal.dishes.map((d) => ({ id: d.id, name: name(d), side: false })),
  ...(props.meal.sides ?? []).map((s) => ({ id: s.id, name: name(s), side: true })),
])
const name = (one: { id: string; name?: string }) =>
  props.names.get(one.id) || one.name || one.id.replaceAll('-', ' ')
function fresh(wish: string) {
  const base =
    wish
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 30) || 'dish'
  const ids = new Set(taken.value.map((one) => one.id))
  for (let n = 1; ; n += 1) {
    const id = n === 1 ? base : `${base}-${n}`
    if (!ids.has(id)) return id
  }
}
function addDish(key: string) {
  const [kind, rest] = [key.split(' ')[0], key.slice(key.indexOf(' ') + 1)]
  const text = dishes.value.find((d) => d.key === key)?.text ?? rest
  const id = fresh(text)
  const what = kind === 'plan' ? { plan_id: Number(rest) } : { template: rest }
  emit('edit', (next) => (next.dishes = [...next.dishes, { id, name: text, ...what }]))
  dish.value = ''
}
function addSide(key: string) {
  const id = fresh(key)
  emit('edit', (next) => (next.sides = [...(next.sides ?? []), { id, key }]))
  side.value = ''
}
</script>

<template>
  <section class="parts no-print" aria-label="What there is">
    <ul>
      <li v-for="one in taken" :key="one.id" :class="{ side: one.side }">
        <span>{{ one.name }}</span>
        <el-button
          text
          :aria-label="`Take “${one.name}” off the table`"
          @click="$emit('take', one.id, one.name)"
          >×</el-button
        >
      </li>
    </ul>
    <div class="add">
      <PickField
        v-if="meal.dishes.length < MOST_DISHES"
        v-model="dish"
        label="Add a dish"
        placeholder="a plan, or one to begin with"
        :options="dishes"
        data-test="add-dish"
        @change="addDish"
      />
      <PickField
        v-if="(meal.sides ?? []).length < MOST_SIDES"
        v-model="side"
        label="Add a side"
        placeholder="potatoes, slaw…"
        :options="sides"
        data-test="add-side"
        @change="addSide"
      />
      <GuestsField
        :meal="meal"
        :helpings="helpings"
        :names="names"
        @edit="(change) => $emit('edit', change)"
      />
      <div class="hands">
        <span id="hands-label">Pairs of hands</span>
        <el-segmented
          class="pick-one"
          aria-labelledby="hands-label"
          :model-value="meal.hands ?? 1"
          :options="Array.from({ length: Math.max(MOST_HANDS, meal.hands ?? 1) }, (_, n) => n + 1)"
          @change="(n: unknown) => $emit('edit', (next) => (next.hands = Number(n)))"
        />
      </div>
    </div>
    <AwayField
      class="away"
      :spans="meal.quiet ?? []"
      :supper="supper"
      :now="now"
      @change="(spans) => $emit('edit', (next) => (next.quiet = spans))"
    />
  </section>
</template>

<style scoped>
.parts ul {
  list-style: none;
  margin: 0 0 12px;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
li {
  display: flex;
  align-items: center;
  padding-left: 16px;
  border-radius: 14px;
  background: var(--kettle-ember-soft);
  font-weight: 700;
}
li.side {
  background: none;
  border: 2px solid var(--kettle-line);
  font-weight: 400;
}
li .el-button {
  min-width: 44px;
  margin: 0;
  font-size: 1.3rem;
  color: var(--kettle-ink);
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 14px 20px;
  align-items: start;
}
.add > * {
  flex: 1 1 220px;
  max-width: 340px;
}
.away {
  margin-top: 14px;
}
.hands {
  display: grid;
  gap: 4px;
  font-weight: 700;
}
</style>
