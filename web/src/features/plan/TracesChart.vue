<script setup lang="ts">
import { computed } from 'vue'
import type { Forecast } from '@/api/client'
import { duration } from '@/shared/format/time'
import TempLine, { type Trace } from '@/shared/ui/TempLine.vue'

/** The first heat of a dish: around the food and in its middle, over minutes in the pot. */
const props = defineProps<{ forecast: Forecast }>()
const length = computed(() => props.forecast.traces.time_s?.at(-1) || 1)
const traces = computed<Trace[]>(() => {
  const { time_s = [], vessel_c = [], centre_c = [] } = props.forecast.traces
  const points = (temps: number[]) => time_s.map((t, i) => ({ x: t / length.value, c: temps[i]! }))
  return [
    { name: 'middle of the food', kind: 'middle', points: points(centre_c) },
    { name: 'around it', kind: 'around', points: points(vessel_c) },
  ]
})
const says = (x: number) => `after ${duration(x * length.value)}`
</script>

<template>
  <TempLine
    :traces="traces"
    :says="says"
    :ends="['0', duration(length)]"
    label="Temperature around the food and in its middle, over minutes in the pot"
  />
</template>
