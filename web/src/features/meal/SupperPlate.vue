<script setup lang="ts">
/** The plate at the end of the evening: dragged in time, or moved by keys. */
import { computed, ref } from 'vue'
import { clock } from '@/shared/format/time'

const props = defineProps<{ wanted: string; x: number; y: number; perMinute: number }>()
const emit = defineEmits<{ move: [minutes: number] }>()

const STEP_MIN = 5
// The plate is dragged; the evening is planned anew when it is let go.
const pulled = ref<number>()
const shift = computed(() => (pulled.value === undefined ? 0 : pulled.value))
const minutes = computed(() => Math.round(shift.value / props.perMinute / STEP_MIN) * STEP_MIN)
const says = computed(() =>
  clock(new Date(new Date(props.wanted).getTime() + minutes.value * 60_000)),
)
let begun = 0
function grab(event: PointerEvent) {
  begun = event.clientX
  pulled.value = 0
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function pull(event: PointerEvent) {
  if (pulled.value !== undefined) pulled.value = event.clientX - begun
}
function drop() {
  const by = minutes.value
  pulled.value = undefined
  if (by) emit('move', by)
}
const KEYS: Record<string, number> = {
  ArrowLeft: -STEP_MIN,
  ArrowDown: -STEP_MIN,
  ArrowRight: STEP_MIN,
  ArrowUp: STEP_MIN,
  PageDown: -30,
  PageUp: 30,
}
function key(event: KeyboardEvent) {
  const by = KEYS[event.key]
  if (by === undefined) return
  event.preventDefault()
  event.stopPropagation()
  emit('move', by)
}
</script>

<template>
  <g
    class="plate"
    role="slider"
    tabindex="0"
    aria-label="Supper"
    :aria-valuenow="new Date(wanted).getHours() * 60 + new Date(wanted).getMinutes()"
    aria-valuemin="0"
    aria-valuemax="1439"
    :aria-valuetext="`on the table at ${says}`"
    :transform="`translate(${x + shift} ${y})`"
    data-test="plate"
    @pointerdown="grab"
    @pointermove="pull"
    @pointerup="drop"
    @pointercancel="pulled = undefined"
    @keydown="key"
  >
    <circle r="40" class="rim" />
    <circle r="28" class="well" />
    <text y="7">{{ says }}</text>
    <path class="grip" d="M-12 56h-8m4-4-4 4 4 4M12 56h8m-4-4 4 4-4 4" />
  </g>
</template>

<style scoped>
text {
  font-variant-numeric: tabular-nums;
}
.plate {
  cursor: grab;
  touch-action: none;
}
.plate .rim {
  fill: var(--kettle-chalk);
}
.plate .well {
  fill: none;
  stroke: var(--kettle-coal);
  stroke-opacity: 0.25;
  stroke-width: 2;
}
.plate text {
  text-anchor: middle;
  fill: var(--kettle-coal);
  font: 700 19px var(--kettle-display);
}
.grip {
  fill: none;
  stroke: var(--kettle-chalk-soft);
  stroke-width: 2;
}
.plate:focus-visible {
  outline: none;
}
.plate:focus-visible .rim {
  stroke: var(--kettle-glow);
  stroke-width: 5;
}
</style>
