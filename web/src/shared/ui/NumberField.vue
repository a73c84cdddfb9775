<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'
import { useUnits } from '@/shared/composables/useUnits'
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
    <label :for="id">{{ label }}</label>
    <div class="row">
      <button type="button" :aria-label="`less, ${label}`" @click="move(-1)">−</button>
      <input
        :id="id"
        class="figure"
        :value="text"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="hint"
        :aria-invalid="wrong"
        @input="put(($event.target as HTMLInputElement).value)"
      />
      <button type="button" :aria-label="`more, ${label}`" @click="move(1)">+</button>
      <span v-if="unit" class="unit">{{ shown.unit }}</span>
    </div>
    <small v-if="wrong" class="wrong" role="alert">“{{ text }}” is not a number</small>
    <small v-else-if="note" class="quiet">{{ note }}</small>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
.row {
  display: flex;
  align-items: center;
  gap: 4px;
}
input {
  width: 84px;
  height: 52px;
  text-align: center;
  font-size: 1.15rem;
  border-radius: 12px;
  border: 2px solid var(--kettle-line);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
}
input::placeholder {
  color: var(--kettle-ink-soft);
  opacity: 1;
}
input[aria-invalid='true'] {
  border-color: var(--kettle-stop);
}
button {
  width: 44px;
  height: 52px;
  font-size: 1.3rem;
  border: 2px solid var(--kettle-enamel-soft);
  border-radius: 12px;
  background: transparent;
  color: var(--kettle-ink);
  cursor: pointer;
}
button:hover {
  background: var(--kettle-ember-soft);
}
.unit {
  color: var(--kettle-ink-soft);
  margin-left: 4px;
}
.wrong {
  color: var(--kettle-stop);
}
</style>
