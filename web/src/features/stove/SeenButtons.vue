<script setup lang="ts">
import type { EventBody } from '@/api/client'

defineEmits<{ saw: [sign: EventBody['sign']] }>()
const signs: { sign: EventBody['sign']; text: string }[] = [
  { sign: 'nothing yet', text: 'nothing yet' },
  { sign: 'bubbling', text: 'bubbling' },
  { sign: 'amber at the edges', text: 'amber edges' },
  { sign: 'dark', text: 'dark' },
]
</script>

<template>
  <div class="seen" role="group" aria-label="I see">
    <span>I see</span>
    <button
      v-for="s in signs"
      :key="s.text"
      type="button"
      class="plain-button"
      :data-test="`saw-${s.sign}`"
      @click="$emit('saw', s.sign)"
    >
      {{ s.text }}
    </button>
  </div>
</template>

<style scoped>
.seen {
  display: grid;
  grid-template-columns: auto repeat(4, 1fr);
  gap: 10px;
  align-items: center;
  font-weight: 700;
}
.plain-button {
  min-height: 72px;
  font-size: 1.12rem;
  font-weight: 700;
  padding: 6px;
}
@media (max-width: 640px) {
  .seen {
    grid-template-columns: 1fr 1fr;
  }
  .seen span {
    grid-column: 1 / -1;
  }
}
</style>
