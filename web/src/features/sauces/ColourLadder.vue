<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { Glaze } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import { milestoneWord, stops, ticks } from '@/shared/ui/glaze'
import GlazePatterns from '@/shared/ui/GlazePatterns.vue'

/** One coat under each of the kitchen's finishes: the same strip, one below the other, on one clock. */
const props = defineProps<{ ladder: Glaze[]; dials: string[] }>()
const box = ref<HTMLElement>()
const { width: measured } = useElementSize(box)
const id = useId()
const width = computed(() => Math.max(280, measured.value || 280))
const MARKS = ['amber', 'mahogany', 'bitter', 'burnt'] as const
const until = computed(() => {
  const ends = props.ladder.map((g) => g.milestones['edge']?.['burnt']?.likely_s ?? g.horizon_s)
  return Math.min(1800, Math.ceil((Math.max(...ends, 240) * 1.08) / 60) * 60)
})
const x = (seconds: number) => (Math.min(seconds, until.value) / until.value) * width.value
const ROW = 74
const rungs = computed(() =>
  props.ladder.map((glaze, i) => ({
    glaze,
    y: i * ROW,
    dial: props.dials[i] ?? glaze.appliance_name,
    face: stops(glaze.face, glaze.sample_s, until.value),
    edge: stops(glaze.edge, glaze.sample_s, until.value),
    marks: MARKS.flatMap((name, n) => {
      const at = glaze.milestones['face']?.[name]?.likely_s
      if (at === null || at === undefined || at > until.value) return []
      const next =
        MARKS.slice(n + 1)
          .map((m) => glaze.milestones['face']?.[m]?.likely_s)
          .find((t) => t !== null && t !== undefined) ?? until.value
      return [
        {
          name,
          word: milestoneWord(name, glaze.caramelises),
          at,
          room: x(Math.min(next, until.value)) - x(at),
        },
      ]
    }),
  })),
)
const spoken = computed(() =>
  rungs.value
    .map(
      (r) =>
        `${r.dial}: ${r.marks.map((m) => `${m.word} at ${stopwatch(m.at)}`).join(', ') || 'no colour within half an hour'}`,
    )
    .join('. '),
)
</script>

<template>
  <div ref="box">
    <svg
      :width="width"
      :height="ladder.length * ROW + 18"
      :viewBox="`0 0 ${width} ${ladder.length * ROW + 18}`"
      role="img"
      :aria-label="`Colour ladder. ${spoken}`"
    >
      <GlazePatterns :id="id" />
      <defs>
        <template v-for="(r, i) in rungs" :key="i">
          <linearGradient :id="`${id}-f${i}`" x1="0" x2="1">
            <stop v-for="s in r.face" :key="s.offset" :offset="s.offset" :stop-color="s.colour" />
          </linearGradient>
          <linearGradient :id="`${id}-e${i}`" x1="0" x2="1">
            <stop v-for="s in r.edge" :key="s.offset" :offset="s.offset" :stop-color="s.colour" />
          </linearGradient>
        </template>
      </defs>
      <g v-for="(r, i) in rungs" :key="r.dial" :transform="`translate(0 ${r.y})`">
        <text class="dial" x="0" y="15">{{ r.dial }}</text>
        <rect x="0" y="22" :width="width" height="28" :fill="`url(#${id}-f${i})`" />
        <rect x="0" y="52" :width="width" height="9" :fill="`url(#${id}-e${i})`" />
        <g v-for="m in r.marks" :key="m.name">
          <rect
            :x="x(m.at)"
            y="22"
            :width="Math.max(0, m.room)"
            height="28"
            :fill="`url(#${id}-p-${m.name})`"
          />
          <line :x1="x(m.at)" :x2="x(m.at)" y1="20" y2="50" class="cut" />
          <text v-if="m.room > 40" class="word" :x="x(m.at) + 5" y="41">
            {{
              m.room > m.word.length * 8.5 + 48 ? `${m.word} ${stopwatch(m.at)}` : stopwatch(m.at)
            }}
          </text>
          <title>{{ m.word }} at {{ stopwatch(m.at) }}</title>
        </g>
      </g>
      <g class="axis">
        <text
          v-for="t in ticks(until, width)"
          :key="t"
          :x="x(t)"
          :y="ladder.length * ROW + 12"
          :text-anchor="t === 0 ? 'start' : x(t) > width - 24 ? 'end' : 'middle'"
        >
          {{ stopwatch(t) }}
        </text>
      </g>
    </svg>
    <p class="quiet legend">
      Broad band: face. Narrow band: edge. Median times of one coat of half a millimetre on hot,
      moist food.
    </p>
  </div>
</template>

<style scoped>
svg {
  display: block;
  font-family: var(--kettle-text);
  font-variant-numeric: tabular-nums;
}
text {
  fill: var(--kettle-ink);
  font-size: 14px;
}
.dial {
  font-weight: 700;
  font-size: 15px;
}
.word {
  fill: #fff;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(0 0 0 / 65%);
  stroke-width: 3px;
}
.cut {
  stroke: rgb(255 255 255 / 75%);
}
.axis text {
  fill: var(--kettle-ink-soft);
}
.legend {
  margin: 6px 0 0;
  font-size: 0.95rem;
}
</style>
