<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Dish } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { shownIn, trim, typed } from '@/shared/format/units'
import { useDraft } from './draft'

/** The dial of the first heat, in the cook's own degrees. Emptied, it is what the kitchen or the usual says. */
const props = defineProps<{ name: string; stated: unknown; usual: number }>()
const draft = useDraft()
const { kitchen, degrees } = useUnits()
const shown = computed(() => shownIn('°C', kitchen.value, degrees.value))
const written = computed(() => {
  if (props.stated === null || props.stated === undefined) return ''
  return typeof props.stated === 'number' ? trim(shown.value.show(props.stated), 1) : String(props.stated)
})
const text = ref(written.value)
watch(written, (next) => { text.value = next })

function put(next: string) {
  text.value = next
  const value = next.trim() === '' ? null : typed(next, 1)
  const kept = typeof value === 'number' ? Math.round(shown.value.keep(value) * 100) / 100 : value
  // The computed timer holds for the dial it was computed at.
  draft.change({ kitchen: { [props.name]: kept }, timer_min: null } as unknown as Partial<Dish>)
}

function step(direction: number) {
  const by = degrees.value === 'C' ? 5 : 10
  const from = Number(text.value.replace(',', '.')) || shown.value.show(props.usual)
  put(trim(Math.round((from + direction * by) / by) * by, 1))
}
</script>

<template>
  <div class="field">
    <label :for="`d-${name}`">Set at</label>
    <div class="row">
      <button type="button" class="plain-button" aria-label="cooler" @click="step(-1)">−</button>
      <input :id="`d-${name}`" :value="text" inputmode="decimal" autocomplete="off" :placeholder="trim(shown.show(usual), 0)" class="figure" @change="put(($event.target as HTMLInputElement).value)" />
      <button type="button" class="plain-button" aria-label="hotter" @click="step(1)">+</button>
      <span class="unit">{{ shown.unit }}</span>
    </div>
  </div>
</template>

<style scoped>
.field { display: grid; gap: 4px; }
label { font-weight: 700; }
.row { display: flex; gap: 8px; align-items: center; }
input {
  width: 110px; height: 52px; text-align: center; font-size: 1.3rem; border-radius: 12px; border: 2px solid var(--kettle-line);
  background: var(--kettle-sheet); color: var(--kettle-ink);
}
input::placeholder { color: var(--kettle-ink-soft); opacity: 1; }
.plain-button { min-width: 52px; height: 52px; font-size: 1.4rem; padding: 0; }
.unit { color: var(--kettle-ink-soft); }
</style>
