<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { trim, typed } from '@/shared/format/units'

/** One figure of the kitchen: assumed until somebody writes over it, and again when it is emptied. */
const props = defineProps<{
  name: string
  label: string
  unit: string
  typical: number | null
  stated: unknown
}>()
const emit = defineEmits<{ put: [value: number | string | null] }>()
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

const text = ref('')
watch(
  () => props.stated,
  (stated) => (text.value = stated === null || stated === undefined ? '' : String(stated)),
  { immediate: true },
)

function put(text: string) {
  emit('put', text.trim() === '' ? null : typed(text, 1))
}
</script>

<template>
  <div class="row">
    <label :for="`k-${name}`">{{ label }}</label>
    <el-input
      :id="`k-${name}`"
      v-model="text"
      class="figure"
      inputmode="decimal"
      autocomplete="off"
      :placeholder="typical === null ? '' : trim(typical, 1)"
      @change="put"
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
.el-input {
  --el-input-height: 48px;
  --el-input-placeholder-color: var(--kettle-ink-soft);
}
.el-input :deep(input) {
  text-align: right;
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
