<script setup lang="ts">
import { computed } from 'vue'
import type { Glaze } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import { milestoneWord } from '@/shared/ui/glaze'

const props = defineProps<{ glaze: Glaze }>()
const goal = computed(() => milestoneWord(props.glaze.want, props.glaze.caramelises))
const sight = computed(() => {
  const gap = props.glaze.gaps.find((g) => g.sign.startsWith('amber')) ?? props.glaze.gaps[0]
  // A colour that comes one time in five before burning is no plan: then the sentence says so instead.
  if (!gap || gap.to_wanted.low_s === null || props.glaze.possible < 0.2) return null
  const to = gap.to_wanted.high_s === null ? 'and more' : `to ${stopwatch(gap.to_wanted.high_s)}`
  const onward = gap.wanted_to_burnt
  const then =
    onward.low_s === null
      ? ''
      : `then ${stopwatch(onward.low_s)}${onward.high_s === null ? ' and more' : ` to ${stopwatch(onward.high_s)}`} before it spoils`
  const sign = props.glaze.caramelises ? 'the edges turn amber' : 'the edges brown'
  return { sign, range: `${stopwatch(gap.to_wanted.low_s)} ${to}`, then }
})
const byClock = computed(() => {
  const w = props.glaze.window
  if (w.empty || w.opens_s === null) return 'The clock alone cannot tell you: look.'
  const close = w.closes_s === null ? 'no end in sight' : stopwatch(w.closes_s)
  return `By the clock: out between ${stopwatch(w.opens_s)} and ${close}, ${Math.round(w.hit * 100)} % likely right.`
})
</script>

<template>
  <p class="window figure">
    <template v-if="sight"
      ><b>By sight:</b> once {{ sight.sign }} you have <b>{{ sight.range }}</b> until {{ goal
      }}<template v-if="sight.then">, {{ sight.then }}</template
      >.
    </template>
    <template v-else
      >The edges burn before the food is {{ goal }}, nearly always. See “why this heat?” for what
      would do better.
    </template>
    <span>{{ byClock }}</span>
  </p>
</template>

<style scoped>
.window {
  margin: 4px 0 12px;
  font-size: 1.08rem;
  max-width: 62rem;
}
</style>
