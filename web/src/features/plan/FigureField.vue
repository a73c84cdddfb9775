<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Dish } from '@/api/client'
import { trim, typed } from '@/shared/format/units'
import { useDraft } from './draft'

/** A number in the cook's own unit. What is typed is kept even when it cannot be used; the server says what can. */
const props = defineProps<{
  field: keyof Dish
  label: string
  value: unknown
  factor: number
  unit: string
  step: number
  decimals: number
  optional?: boolean
}>()
const draft = useDraft()
const written = computed(() => {
  if (props.value === null || props.value === undefined) return ''
  return typeof props.value === 'number'
    ? trim(props.value / props.factor, props.decimals)
    : String(props.value)
})
const text = ref(written.value)
watch(written, (next) => {
  if (typed(text.value, props.factor) !== props.value) text.value = next
})

function put(next: string) {
  text.value = next
  const value = next.trim() === '' && props.optional ? null : typed(next, props.factor)
  draft.change({ [props.field]: value } as Partial<Dish>)
}

function move(direction: number) {
  const number = Number(text.value.replace(',', '.'))
  const from = Number.isFinite(number) ? number : 0
  put(trim(Math.max(0, Math.round((from + direction * props.step) / props.step) * props.step), 2))
}
</script>

<template>
  <div class="field">
    <label :for="`f-${field}`">{{ label }}</label>
    <div class="row">
      <el-button class="plain-button" :aria-label="`less ${unit}`" @click="move(-1)"> − </el-button>
      <input
        :id="`f-${field}`"
        :value="text"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="optional ? 'computed' : ''"
        class="figure"
        @input="put(($event.target as HTMLInputElement).value)"
      />
      <el-button class="plain-button" :aria-label="`more ${unit}`" @click="move(1)"> + </el-button>
      <span class="unit">{{ unit }}</span>
    </div>
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
  gap: 8px;
  align-items: center;
}
input {
  width: 110px;
  height: 52px;
  text-align: center;
  font-size: 1.3rem;
  border-radius: 12px;
  border: 2px solid var(--kettle-line);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
}
.plain-button {
  min-width: 52px;
  height: 52px;
  font-size: 1.4rem;
  padding: 0;
}
.unit {
  color: var(--kettle-ink-soft);
}
</style>
