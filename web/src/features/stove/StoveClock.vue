<script setup lang="ts">
import { computed } from 'vue'
import type { Live, Step } from '@/api/client'
import { clock, stopwatch } from '@/shared/format/time'
import type { Call } from './calls'

const props = defineProps<{
  live: Live
  step?: Step
  now: Date
  underS: number | null
  call?: Call
  next?: Call
}>()

const seconds = (moment: string) => (new Date(moment).getTime() - props.now.getTime()) / 1000
const main = computed(() => {
  if (props.underS !== null) return stopwatch(props.underS)
  if (!props.step) return clock(props.now)
  if (props.step.who === 'machine') return stopwatch(seconds(props.step.due_at))
  return props.step.begin_at
    ? stopwatch(Math.max(0, -seconds(props.step.begin_at)))
    : clock(props.now)
})
const caption = computed(() => {
  if (props.underS !== null) {
    const since = props.live.fire_assumed ? 'since the earliest it could be' : 'under the heat'
    if (props.call?.level === 'out') return `${since}. Out now.`
    return props.next
      ? `${since}. ${props.next.says.replace(/\.$/, '')} at ${stopwatch(props.next.at_s)}`
      : since
  }
  if (!props.step) return ''
  if (props.step.who === 'machine') {
    const late = seconds(props.step.due_at) < 0
    return late
      ? `over since ${clock(props.step.due_at)}: is it so?`
      : `left, until about ${clock(props.step.due_at)}`
  }
  return 'since this became the thing to do'
})
const urgent = computed(() => props.underS !== null && props.call !== undefined)
</script>

<template>
  <div class="clock" :class="{ urgent }" role="timer" data-test="clock">
    <span class="figure main">{{ main }}</span>
    <span class="caption figure">{{ caption }}</span>
  </div>
</template>

<style scoped>
.clock {
  display: flex;
  align-items: baseline;
  gap: 22px;
  flex-wrap: wrap;
}
.main {
  font: 700 7rem/1 var(--kettle-display);
  letter-spacing: -0.03em;
  font-variant-numeric: tabular-nums;
}
.caption {
  font-size: 1.2rem;
}
.urgent .main {
  color: var(--kettle-ember);
}
@media (max-width: 640px) {
  .main {
    font-size: 5rem;
  }
}
</style>
