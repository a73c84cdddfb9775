<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Dish } from '@/api/client'
import { trim, typed } from '@/shared/format/units'
import StepBox from '@/shared/ui/StepBox.vue'
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
  <StepBox
    :id="`f-${field}`"
    :label="label"
    :text="text"
    :unit="unit"
    :hint="optional ? 'computed' : ''"
    @put="put"
    @move="move"
  />
</template>
