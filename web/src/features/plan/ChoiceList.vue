<script setup lang="ts">
import { vArrows } from '@/shared/composables/arrows'

defineProps<{
  options: { key: string; text: string; hint?: string; swatch?: string }[]
  chosen: string
  two?: boolean
}>()
defineEmits<{ pick: [key: string] }>()
</script>

<template>
  <div v-arrows class="list" :class="{ two }" role="radiogroup">
    <button
      v-for="option in options"
      :key="option.key"
      type="button"
      role="radio"
      :aria-checked="option.key === chosen"
      :class="{ on: option.key === chosen }"
      @click="$emit('pick', option.key)"
    >
      <i v-if="option.swatch" :style="{ background: option.swatch }" />
      <span
        ><b>{{ option.text }}</b
        ><small v-if="option.hint">{{ option.hint }}</small></span
      >
    </button>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 8px;
}
.two {
  grid-template-columns: 1fr 1fr;
}
.two button {
  padding: 6px 10px;
  font-size: 1rem;
  line-height: 1.2;
}
.two small {
  font-size: 0.86rem;
}
button {
  display: flex;
  gap: 12px;
  align-items: center;
  text-align: left;
  min-height: 52px;
  padding: 8px 14px;
  border-radius: 12px;
  cursor: pointer;
  border: 2px solid var(--kettle-line);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  font-size: 1.05rem;
}
button:hover {
  background: var(--kettle-ember-soft);
}
button.on {
  border-color: var(--kettle-ember);
  box-shadow: inset 6px 0 0 var(--kettle-ember);
}
b {
  display: block;
  font-weight: 700;
}
small {
  color: var(--kettle-ink-soft);
  font-size: 0.92rem;
}
i {
  width: 26px;
  height: 26px;
  border-radius: 50% 50% 50% 0;
  transform: rotate(135deg);
  flex: none;
}
</style>
