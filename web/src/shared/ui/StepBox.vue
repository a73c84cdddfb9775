<script setup lang="ts">
/** A number as it is typed, its unit, and two big steps. What it means, and what cannot be read, is for the field around it. */
defineProps<{
  id: string
  label: string
  text: string
  unit: string
  hint?: string
  wrong?: boolean
}>()
const emit = defineEmits<{ put: [text: string]; move: [direction: -1 | 1] }>()
</script>

<template>
  <div class="step-box">
    <label :for="id">{{ label }}</label>
    <div class="row">
      <el-button class="plain-button" :aria-label="`less, ${label}`" @click="emit('move', -1)">
        −
      </el-button>
      <el-input
        :id="id"
        class="figure"
        :class="{ wrong }"
        :model-value="text"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="hint"
        :aria-invalid="Boolean(wrong)"
        @input="emit('put', $event)"
      />
      <el-button class="plain-button" :aria-label="`more, ${label}`" @click="emit('move', 1)">
        +
      </el-button>
      <span v-if="unit" class="unit">{{ unit }}</span>
    </div>
  </div>
</template>

<style scoped>
.step-box {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
.row {
  display: flex;
  align-items: center;
  gap: 6px;
}
.el-input {
  width: 96px;
  font-size: 1.2rem;
  --el-input-placeholder-color: var(--kettle-ink-soft);
}
.el-input :deep(input) {
  text-align: center;
}
.el-input :deep(.el-input__wrapper) {
  padding: 0 6px;
}
.plain-button.el-button {
  width: 48px;
  height: 52px;
  padding: 0;
  font-size: 1.4rem;
}
.unit {
  color: var(--kettle-ink-soft);
}
</style>
