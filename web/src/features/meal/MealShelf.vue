<script setup lang="ts">
import { computed } from 'vue'
import type { KeptMeal, Meal, MealChoices } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { clock, day } from '@/shared/format/time'

/** Meals that are kept, and made ones to begin with. */
const props = defineProps<{ meals: KeptMeal[] | undefined; choices: MealChoices | undefined }>()
const emit = defineEmits<{
  begin: [meal: Meal]
  open: [meal: Meal, id: number, version: number]
  drop: [meal: KeptMeal]
}>()
const SHOWN = 9
const MOST_HANDS = 6
const { known } = useKitchenFigures()
/** As many hands as the kitchen usually has. */
const hands = computed(() => Math.min(MOST_HANDS, known.value?.settings.hands ?? 1))
/** Each different table once. */
const made = computed(() => {
  const seen = new Set<string>()
  return (props.choices?.made ?? [])
    .filter(({ meal }) => {
      const table = meal.dishes.map((one) => one.id).join()
      if (!table || seen.has(table)) return false
      seen.add(table)
      return true
    })
    .slice(0, SHOWN)
})
const parts = (meal: Meal) =>
  [...meal.dishes, ...(meal.sides ?? [])]
    .map((one) => one.name || one.id.replaceAll('-', ' '))
    .join(', ')
/** A made one is begun in this kitchen, as soon as it can be. */
const take = (meal: Meal) => emit('begin', { ...meal, appliances: null, serve_at: null })
</script>

<template>
  <div class="shelf">
    <el-button
      class="ember-button"
      data-test="new-meal"
      @click="$emit('begin', { name: '', dishes: [], sides: [], hands })"
    >
      Begin a meal
    </el-button>
    <section v-if="meals?.length" aria-label="Yours">
      <h2>Yours</h2>
      <ul class="card-shelf">
        <li v-for="one in meals" :key="one.id">
          <button
            type="button"
            class="pick-card"
            :data-test="`meal-${one.id}`"
            @click="$emit('open', one.meal, one.id, one.version)"
          >
            <b>{{ one.title }}</b>
            <span>{{ parts(one.meal) }}</span>
            <span v-if="one.meal.serve_at" class="quiet figure">
              {{ clock(one.meal.serve_at) }}, {{ day(one.meal.serve_at, new Date()) }}
            </span>
            <span v-if="one.missing?.length" class="gone">A plan of it was deleted.</span>
          </button>
          <div class="beneath">
            <el-button
              text
              :aria-label="`Delete “${one.title}”`"
              :data-test="`drop-${one.id}`"
              @click="$emit('drop', one)"
            >
              Delete
            </el-button>
          </div>
        </li>
      </ul>
    </section>
    <section aria-label="To begin with">
      <h2>To begin with</h2>
      <p v-if="!choices" class="quiet" role="status">Laying the table…</p>
      <ul class="card-shelf">
        <li v-for="one in made" :key="one.key">
          <button
            type="button"
            class="pick-card"
            :data-test="`made-${one.key}`"
            @click="take(one.meal)"
          >
            <b>{{ one.meal.name }}</b>
            <span class="quiet">{{ parts(one.meal) }}</span>
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.shelf {
  display: grid;
  gap: 22px;
  justify-items: start;
}
section {
  width: 100%;
}
h2 {
  margin-bottom: 10px;
}
li {
  display: flex;
  flex-direction: column;
}
.pick-card {
  flex: 1;
  min-height: 96px;
}
.beneath {
  display: flex;
  justify-content: flex-end;
}
.gone {
  color: var(--kettle-stop);
}
</style>
