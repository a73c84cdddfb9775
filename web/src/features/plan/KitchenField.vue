<script setup lang="ts">
import { computed } from 'vue'
import type { Dish } from '@/api/client'
import { trim, typed } from '@/shared/format/units'
import { useDraft } from './draft'

/** One figure of the kitchen: assumed until somebody writes over it, and again when it is emptied. */
const props = defineProps<{
  name: string
  label: string
  unit: string
  typical: number | null
  stated: unknown
}>()
const draft = useDraft()
const units: Record<string, string> = {
  m: 'm',
  w: 'W',
  l: 'L',
  kpa: 'kPa',
  c: '°C',
  m2: 'W/m²',
  min: 'min',
}
const unit = computed(() => props.unit || units[props.name.split('_').at(-1) ?? ''] || '')

function put(text: string) {
  const value = text.trim() === '' ? null : typed(text, 1)
  draft.change({ kitchen: { [props.name]: value } } as unknown as Partial<Dish>)
}
</script>

<template>
  <div class="row">
    <label :for="`k-${name}`">{{ label }}</label>
    <input
      :id="`k-${name}`"
      class="figure"
      inputmode="decimal"
      autocomplete="off"
      :value="stated ?? ''"
      :placeholder="typical === null ? '' : trim(typical, 1)"
      @change="put(($event.target as HTMLInputElement).value)"
    />
    <span>{{ unit }}</span>
    <em v-if="stated === null">assumed</em>
    <el-button v-else class="plain-button" @click="put('')">assume again</el-button>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 92px 52px auto;
  gap: 10px;
  align-items: center;
  min-height: 48px;
}
input {
  height: 44px;
  text-align: right;
  padding: 0 10px;
  border-radius: 10px;
  border: 1px solid var(--kettle-line);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  font-size: 1rem;
  width: 100%;
}
input::placeholder {
  color: var(--kettle-ink-soft);
  opacity: 1;
}
em {
  color: var(--kettle-careful);
}
.plain-button {
  min-height: 44px;
  padding: 4px 10px;
  font-size: 0.9rem;
}
@media (max-width: 360px) {
  .row {
    grid-template-columns: 1fr 92px 40px;
  }
}
</style>
