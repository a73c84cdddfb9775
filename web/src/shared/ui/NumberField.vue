<script setup lang="ts">
import { ref, useId, watch } from 'vue'
import { trim, typed } from '@/shared/format/units'

/** A number with its unit and two big steps. What cannot be read stays in the box and is told. */
const value = defineModel<number | null>({ required: true })
const props = defineProps<{ label: string; unit: string; step: number; placeholder?: string; note?: string }>()
const id = useId()
const text = ref(value.value === null ? '' : trim(value.value, 3))
const wrong = ref(false)
watch(value, (next) => {
  if (typed(text.value, 1) !== next) text.value = next === null ? '' : trim(next, 3)
})

function put(next: string) {
  text.value = next
  const number = next.trim() === '' ? null : typed(next, 1)
  wrong.value = typeof number === 'string'
  if (typeof number !== 'string') value.value = number
}

function move(direction: number) {
  const from = Number(text.value.replace(',', '.')) || Number(props.placeholder) || 0
  put(trim(Math.max(0, Math.round((from + direction * props.step) / props.step) * props.step), 3))
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <div class="row">
      <button type="button" :aria-label="`less, ${label}`" @click="move(-1)">−</button>
      <input :id="id" class="figure" :value="text" inputmode="decimal" autocomplete="off" :placeholder="placeholder ?? ''" :aria-invalid="wrong" @input="put(($event.target as HTMLInputElement).value)" />
      <button type="button" :aria-label="`more, ${label}`" @click="move(1)">+</button>
      <span v-if="unit" class="unit">{{ unit }}</span>
    </div>
    <small v-if="wrong" class="wrong" role="alert">“{{ text }}” is not a number</small>
    <small v-else-if="note" class="quiet">{{ note }}</small>
  </div>
</template>

<style scoped>
.field { display: grid; gap: 4px; }
label { font-weight: 700; }
.row { display: flex; align-items: center; gap: 4px; }
input { width: 84px; height: 52px; text-align: center; font-size: 1.15rem; border-radius: 12px; border: 2px solid var(--kettle-line); background: var(--kettle-sheet); color: var(--kettle-ink); }
input::placeholder { color: var(--kettle-ink-soft); opacity: 1; }
input[aria-invalid='true'] { border-color: var(--kettle-stop); }
button { width: 44px; height: 52px; font-size: 1.3rem; border: 2px solid var(--kettle-enamel-soft); border-radius: 12px; background: transparent; color: var(--kettle-ink); cursor: pointer; }
button:hover { background: var(--kettle-ember-soft); }
.unit { color: var(--kettle-ink-soft); margin-left: 4px; }
.wrong { color: var(--kettle-stop); }
</style>
