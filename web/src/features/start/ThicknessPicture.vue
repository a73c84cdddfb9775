<script setup lang="ts">
/** A piece from the side, to scale, with fingers laid beside it. */
import { computed } from 'vue'

const props = defineProps<{ mm: number; most: number; round: boolean }>()
const HIGH = 78
const FINGER_MM = 18
const GROUND = 88
const scale = computed(() => HIGH / Math.max(props.most, FINGER_MM))
const high = computed(() => props.mm * scale.value)
const finger = computed(() => FINGER_MM * scale.value)
const fingers = computed(() =>
  Array.from({ length: Math.max(1, Math.round(props.mm / FINGER_MM)) }, (_, i) => i),
)
</script>

<template>
  <svg viewBox="0 0 150 92" width="150" height="92" aria-hidden="true">
    <path class="board" :d="`M4 ${GROUND}h142`" />
    <ellipse
      v-if="round"
      class="food"
      cx="52"
      :cy="GROUND - high / 2"
      :rx="Math.min(44, high / 2)"
      :ry="high / 2"
    />
    <rect
      v-else
      class="food"
      x="10"
      :y="GROUND - high"
      width="84"
      :height="high"
      :rx="Math.min(12, high / 3)"
    />
    <rect
      v-for="i in fingers"
      :key="i"
      class="finger"
      x="106"
      :y="GROUND - (i + 1) * finger + 1"
      width="36"
      :height="Math.max(3, finger - 2)"
      :rx="Math.min(8, finger / 2)"
    />
  </svg>
</template>

<style scoped>
.board {
  stroke: var(--kettle-ink-soft);
  stroke-width: 2;
}
.food {
  fill: var(--kettle-ember-soft);
  stroke: var(--kettle-enamel);
  stroke-width: 2;
}
:global(html.dark .food) {
  stroke: var(--kettle-enamel-soft);
}
.finger {
  fill: none;
  stroke: var(--kettle-ink-soft);
  stroke-width: 1.5;
}
</style>
