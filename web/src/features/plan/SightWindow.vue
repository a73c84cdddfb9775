<script setup lang="ts">
import { computed } from 'vue'
import type { Glaze } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import { clockVerdict, milestoneWord } from '@/shared/ui/glaze'

const props = defineProps<{ glaze: Glaze }>()
const goal = computed(() => milestoneWord(props.glaze.want, props.glaze.caramelises))
const sight = computed(() => {
  const gap = props.glaze.gaps.find((g) => g.sign.startsWith('amber')) ?? props.glaze.gaps[0]
  // A colour that comes one time in five before burning is no plan: then the sentence says so instead.
  if (!gap || gap.to_wanted.low_s === null || props.glaze.possible < 0.2) return null
  const to = gap.to_wanted.high_s === null ? 'and more' : `to ${stopwatch(gap.to_wanted.high_s)}`
  const left = gap.wanted_to_burnt.low_s
  const then = left === null ? '' : ` From there at least ${stopwatch(left)} before it spoils.`
  return { range: `${stopwatch(gap.to_wanted.low_s)} ${to}`, then }
})
const byClock = computed(() => {
  const w = props.glaze.window
  const verdict = clockVerdict(props.glaze)
  if (w.empty || w.opens_s === null) return ''
  const close = w.closes_s === null ? 'no end in sight' : stopwatch(w.closes_s)
  const often = verdict.replace('by the clock: ', '')
  return `By the clock: out between ${stopwatch(w.opens_s)} and ${close}, ${often}.`
})
</script>

<template>
  <p class="window figure">
    <template v-if="sight">
      <b>By sight:</b> edges first; the face is {{ goal }} <b>{{ sight.range }}</b> later.{{
        sight.then
      }}
    </template>
    <template v-else>
      The edges burn before the food is {{ goal }}, nearly always. “Why this heat?” says what would
      do better.
    </template>
    <span v-if="byClock">{{ ` ${byClock}` }}</span>
  </p>
</template>

<style scoped>
.window {
  margin: 4px 0 12px;
  font-size: 1.08rem;
  max-width: 62rem;
}
</style>
