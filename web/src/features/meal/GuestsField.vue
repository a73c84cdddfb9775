<script setup lang="ts">
/** How many eat and how much, and whether there is enough for all of them. */
import { computed } from 'vue'
import type { Meal, Schedule } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { helping } from '@/shared/format/units'
import NumberField from '@/shared/ui/NumberField.vue'

const props = defineProps<{
  meal: Meal
  helpings: Schedule['helpings']
  names: Map<string, string>
}>()
const emit = defineEmits<{ edit: [change: (next: Meal) => void] }>()
const PLENTY = 1.6
const { kitchen } = useUnits()
const amount = (grams: number) => helping(grams / 1000, kitchen.value)
const APPETITES: { value: NonNullable<Meal['appetite']>; label: string }[] = [
  { value: 'light', label: 'light' },
  { value: 'ordinary', label: 'ordinary' },
  { value: 'hearty', label: 'hearty' },
]
const says = computed(() => {
  const found = props.helpings
  if (!found || !props.meal.guests) return ''
  const each = `About ${amount(found.head_g)} each, cooked and without bones`
  if (found.enough) {
    const plenty = found.head_g >= PLENTY * found.wanted_g
    return `${each}: ${plenty ? 'plenty' : 'enough'}.`
  }
  const name = props.names.get(found.line) ?? found.line
  return `${each}, where ${amount(found.wanted_g)} are usual. ${amount(found.more_g)} more would do: ${name}, as bought.`
})
/** One less than one is nobody told; what cannot be is refused by its number, and stays. */
const settle = (guests: number | null) => emit('edit', (meal) => (meal.guests = guests || null))
</script>

<template>
  <div class="guests">
    <NumberField
      :model-value="meal.guests ?? null"
      label="At the table"
      unit="people"
      :step="1"
      placeholder="?"
      @update:model-value="settle"
    />
    <template v-if="meal.guests">
      <el-segmented
        class="pick-one"
        aria-label="How much they eat"
        :model-value="meal.appetite ?? 'ordinary'"
        :options="APPETITES"
        @change="
          (one: unknown) => emit('edit', (next) => (next.appetite = one as Meal['appetite']))
        "
      />
      <p class="says" :class="{ short: helpings && !helpings.enough }" data-test="helpings">
        {{ says }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.guests {
  display: grid;
  gap: 6px;
  align-content: start;
}
.says {
  margin: 0;
}
.says.short {
  border-left: 6px solid var(--kettle-careful);
  padding-left: 10px;
}
</style>
