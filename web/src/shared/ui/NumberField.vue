<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'
import { useUnits } from '@/shared/composables/useUnits'
import StepBox from './StepBox.vue'
import { niceStep, shownIn, trim, typed } from '@/shared/format/units'

/** A number with its unit and two big steps, in the cook's units. What cannot be read stays in the box and is told. */
const value = defineModel<number | null>({ required: true })
const props = defineProps<{
  label: string
  unit: string
  step: number
  placeholder?: string
  note?: string
  fixed?: boolean
}>()
const id = useId()
const { kitchen, degrees } = useUnits()
const shown = computed(() =>
  props.fixed
    ? shownIn(props.unit, 'metric', 'C')
    : shownIn(props.unit, kitchen.value, degrees.value),
)
const step = computed(() =>
  shown.value.unit === props.unit
    ? props.step
    : niceStep(shown.value.show(props.step) - shown.value.show(0)),
)
const digits = computed(() => (shown.value.unit === props.unit ? 3 : step.value >= 1 ? 0 : 2))
const words = (kept: number | null) =>
  kept === null ? '' : trim(shown.value.show(kept), digits.value)
const hint = computed(() =>
  props.placeholder && !Number.isNaN(Number(props.placeholder))
    ? words(Number(props.placeholder))
    : (props.placeholder ?? ''),
)
const text = ref(words(value.value))
const wrong = ref(false)
watch([value, shown], ([next], [, before]) => {
  const now = typed(text.value, 1)
  // What is being typed stays as it is typed.
  if (
    before !== shown.value ||
    next === null ||
    typeof now !== 'number' ||
    Math.abs(shown.value.keep(now) - next) > 1e-6 * Math.abs(next)
  )
    text.value = words(next)
})

function put(next: string) {
  text.value = next
  const number = next.trim() === '' ? null : typed(next, 1)
  wrong.value = typeof number === 'string'
  if (typeof number !== 'string')
    value.value = number === null ? null : Number(shown.value.keep(number).toFixed(6))
}

function move(direction: number) {
  const from = Number(text.value.replace(',', '.')) || Number(hint.value) || 0
  put(trim(Math.max(0, Math.round((from + direction * step.value) / step.value) * step.value), 3))
}
</script>

<template>
  <div class="field">
    <StepBox
      :id="id"
      :label="label"
      :text="text"
      :unit="unit && shown.unit"
      :hint="hint"
      :wrong="wrong"
      @put="put"
      @move="move"
    />
    <small v-if="wrong" class="wrong" role="alert">“{{ text }}” is not a number</small>
    <small v-else-if="note" class="quiet">{{ note }}</small>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
}
.wrong {
  color: var(--kettle-stop);
}
</style>
