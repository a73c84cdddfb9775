<script setup lang="ts">
/** Our own line drawings of the cuts, in one weight, filled with two tones. */
import { computed } from 'vue'
import { cutDrawing } from './cuts'

const props = defineProps<{ cut: string; size?: number }>()

const drawing = computed(() => cutDrawing(props.cut))
</script>

<template>
  <svg
    viewBox="0 0 64 60"
    :width="size ?? 72"
    :height="((size ?? 72) * 60) / 64"
    aria-hidden="true"
  >
    <path
      :d="drawing.flesh"
      :fill="drawing.tone"
      stroke="currentColor"
      stroke-width="2"
      stroke-linejoin="round"
    />
    <path
      :d="drawing.bone"
      fill="none"
      stroke="currentColor"
      stroke-width="2.2"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  </svg>
</template>
