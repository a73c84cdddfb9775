<script setup lang="ts">
import type { EventBody, Live } from '@/api/client'

const props = defineProps<{ cook: Live; bare?: boolean }>()
defineEmits<{ saw: [sign: EventBody['sign']] }>()
const edges = props.bare ? 'browned edges' : 'amber edges'
const signs: { sign: EventBody['sign']; text: string }[] = [
  { sign: 'nothing yet', text: 'nothing yet' },
  { sign: 'bubbling', text: 'bubbling' },
  { sign: 'amber at the edges', text: edges },
  { sign: 'dark', text: 'dark' },
]
const last = () => props.cook.signs.at(-1)?.sign
</script>

<template>
  <div class="seen" role="group" aria-label="I see">
    <span>I see</span>
    <el-button
      v-for="s in signs"
      :key="s.text"
      class="plain-button"
      :class="{ told: last() === s.sign }"
      :data-test="`saw-${s.sign}`"
      @click="$emit('saw', s.sign)"
    >
      {{ s.text }}
    </el-button>
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
.told {
  border-style: double;
  border-width: 5px;
}
@media (max-width: 640px) {
  .seen {
    grid-template-columns: 1fr 1fr;
  }
  .seen span {
    grid-column: 1 / -1;
  }
  .plain-button {
    min-height: 56px;
  }
}
</style>
