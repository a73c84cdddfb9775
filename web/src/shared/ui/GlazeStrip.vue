<script setup lang="ts">
import { computed, ref, useId, useSlots } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { Glaze } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import {
  bracket,
  clockVerdict,
  line,
  marks,
  signWord,
  shownSeconds,
  stops,
  stretches,
  ticks,
} from './glaze'
import GlazePatterns from './GlazePatterns.vue'

const props = defineProps<{
  glaze: Glaze
  nowS?: number | null
  pulledS?: number | null
  compact?: boolean
  /** The line of risk on a compact one too. */
  risk?: boolean
}>()
const box = ref<HTMLElement>()
const { width: measured } = useElementSize(box)
const id = useId()

const LEFT = 52
const full = computed(() => Math.max(280, measured.value || 280))
const width = computed(() => full.value - LEFT - 12)
const until = computed(() =>
  Math.max(shownSeconds(props.glaze), (props.nowS ?? 0) * 1.05, (props.pulledS ?? 0) * 1.05),
)
const rowHeight = computed(() => (props.compact ? 30 : 46))
const slots = useSlots()
const top = computed(() => (slots.stations ? 74 : props.compact ? 54 : 60))
const riskTop = computed(
  () => top.value + sites.value.length * rowHeight.value + (props.compact ? 16 : 28),
)
const risky = computed(() => props.risk || !props.compact)
const riskHeight = computed(() => (props.compact ? 34 : 54))
const height = computed(() =>
  !risky.value
    ? top.value + sites.value.length * rowHeight.value + 24
    : riskTop.value + riskHeight.value + 30,
)
const x = (seconds: number) => (Math.min(seconds, until.value) / until.value) * width.value
const sites = computed(() =>
  props.glaze.back ? (['face', 'back', 'edge'] as const) : (['face', 'edge'] as const),
)
const rows = computed(() =>
  sites.value.map((site, i) => ({
    site,
    y: top.value + i * (rowHeight.value + 4),
    stops: stops(props.glaze[site]!, props.glaze.sample_s, until.value),
    stretches: stretches(props.glaze, site, until.value),
    marks: props.compact ? [] : marks(props.glaze, site, until.value),
  })),
)
const wanted = computed(() => bracket(props.glaze, until.value))
const riskLine = computed(() =>
  line(
    props.glaze.risk,
    props.glaze.sample_s,
    until.value,
    width.value,
    riskTop.value,
    riskHeight.value,
  ),
)
const coats = computed(() => props.glaze.coats.filter((coat) => coat.at_s <= until.value))
const pinFoot = (site: string) =>
  (rows.value.find((row) => row.site === site)?.y ?? top.value) + rowHeight.value - 12
const LETTER = 8
const spanOf = (text: string) => LETTER * text.length + 11
/** Signs where they were seen; one that has no room before the next is told by its title alone. */
const pins = computed(() => {
  const found = props.glaze.seen.map((seen) => ({
    ...seen,
    at: x(seen.at_s),
    text: `${signWord(seen.sign, props.glaze.caramelises)} ${stopwatch(seen.at_s)}`,
  }))
  return found.map((pin) => {
    const next = found.filter((other) => other.site === pin.site && other.at > pin.at)
    const room = Math.min(width.value, ...next.map((other) => other.at - 9)) - pin.at
    return { ...pin, told: room > spanOf(pin.text) }
  })
})
/** Whether a stretch has room for its word beside the signs that are pinned on it. */
function wordFits(site: string, word: string, from: number, to: number): boolean {
  const half = (LETTER * word.length + 8) / 2
  const middle = (from + to) / 2
  if (to - from <= 2 * half) return false
  return pins.value
    .filter((pin) => pin.site === site)
    .every((pin) => {
      const end = pin.at + (pin.told ? spanOf(pin.text) : 9)
      return end < middle - half || pin.at - 9 > middle + half
    })
}
const look = computed(() =>
  props.glaze.look_from_s < until.value ? props.glaze.look_from_s : null,
)
const spoken = computed(() => {
  const said = rows.value.map(
    (row) =>
      `${row.site}: ${row.stretches.map((s) => `${s.word} from ${stopwatch(s.from)}`).join(', ')}`,
  )
  return `Glaze over time under the heat. ${said.join('. ')}. Look from ${stopwatch(props.glaze.look_from_s)}.`
})
</script>

<template>
  <div ref="box" class="strip">
    <svg
      :viewBox="`0 0 ${full} ${height}`"
      :width="full"
      :height="height"
      role="img"
      :aria-label="spoken"
    >
      <GlazePatterns :id="id" />
      <defs>
        <linearGradient v-for="row in rows" :id="`${id}-${row.site}`" :key="row.site" x1="0" x2="1">
          <stop v-for="s in row.stops" :key="s.offset" :offset="s.offset" :stop-color="s.colour" />
        </linearGradient>
        <linearGradient :id="`${id}-wanted`" x1="0" x2="1">
          <stop
            v-for="w in wanted"
            :key="w.offset"
            :offset="w.offset"
            class="ember"
            :stop-opacity="w.chance"
          />
        </linearGradient>
      </defs>
      <g :transform="`translate(${LEFT} 0)`">
        <g class="wanted">
          <rect x="0" :y="top - 13" :width="width" height="9" :fill="`url(#${id}-wanted)`" />
          <text v-if="width > 620" :x="width" :y="top - 20" text-anchor="end">
            {{ clockVerdict(glaze) }}
          </text>
        </g>
        <template v-for="row in rows" :key="row.site">
          <text class="site" :x="-10" :y="row.y + rowHeight / 2 + 5" text-anchor="end">
            {{ row.site }}
          </text>
          <rect
            :x="0"
            :y="row.y"
            :width="width"
            :height="rowHeight"
            :fill="`url(#${id}-${row.site})`"
          />
          <g v-for="s in row.stretches" :key="s.from">
            <rect
              :x="x(s.from)"
              :y="row.y"
              :width="x(s.to) - x(s.from)"
              :height="rowHeight"
              :fill="`url(#${id}-p-${s.pattern})`"
            />
            <text
              v-if="wordFits(row.site, s.word, x(s.from), x(s.to))"
              class="word"
              :x="(x(s.from) + x(s.to)) / 2"
              :y="row.y + rowHeight / 2 + 5"
              text-anchor="middle"
            >
              {{ s.word }}
            </text>
            <line
              v-if="s.from > 0"
              class="cut"
              :x1="x(s.from)"
              :x2="x(s.from)"
              :y1="row.y"
              :y2="row.y + rowHeight"
            />
          </g>
          <g v-for="(m, i) in row.marks" :key="m.word" class="mark">
            <path :d="`M${x(m.likely)} ${row.y + rowHeight} v-9`" />
            <text
              v-if="i === row.marks.length - 1 && width > 620"
              :x="x(m.likely) + 5"
              :y="row.y + rowHeight - 4"
            >
              {{ row.marks.map((k) => k.word).join(', ') }}
            </text>
            <title>
              {{ m.word }} at {{ stopwatch(m.likely) }}, {{ stopwatch(m.low) }} to
              {{ stopwatch(m.high) }}
            </title>
          </g>
        </template>
        <g
          v-for="(coat, i) in $slots.coats || $slots.stations ? [] : coats"
          :key="`c${i}`"
          class="coat"
        >
          <path :d="`M${x(coat.at_s)} 1 c9 11 8 17 0 18 c-8 -1 -9 -7 0 -18z`" />
          <text :x="x(coat.at_s) + 9" y="16">{{ width > 620 ? `coat ${i + 1}` : i + 1 }}</text>
          <title>coat {{ i + 1 }} at {{ stopwatch(coat.at_s) }}</title>
        </g>
        <g v-for="(turn, i) in glaze.flips_s.filter((t) => t <= until)" :key="`t${i}`" class="turn">
          <line
            :x1="x(turn)"
            :x2="x(turn)"
            :y1="top - 4"
            :y2="top + sites.length * rowHeight + 4"
          />
          <template v-if="!$slots.stations">
            <path :d="`M${x(turn) - 7} 14 a7 7 0 1 1 7 7 m0 0 l5 -4 m-5 4 l5 4`" />
            <text :x="x(turn) + 11" y="19">turn</text>
          </template>
          <title>turned at {{ stopwatch(turn) }}</title>
        </g>
        <g v-if="look !== null" class="look">
          <line
            :x1="x(look)"
            :x2="x(look)"
            :y1="top - 16"
            :y2="top + sites.length * rowHeight + 8"
          />
          <text
            v-if="!$slots.stations && pulledS == null && (nowS ?? 0) < look"
            :x="x(look) + 5"
            :y="top - 20"
          >
            look from {{ stopwatch(look) }}
          </text>
        </g>
        <g v-if="risky" class="risk">
          <line :x1="0" :x2="width" :y1="riskTop + riskHeight" :y2="riskTop + riskHeight" />
          <line
            class="accepted"
            :x1="0"
            :x2="width"
            :y1="riskTop + riskHeight * 0.95"
            :y2="riskTop + riskHeight * 0.95"
          />
          <polyline :points="riskLine" />
          <text :x="-10" :y="riskTop + 12" text-anchor="end">risk</text>
        </g>
        <g class="axis">
          <template v-for="t in ticks(until, width)" :key="t">
            <line :x1="x(t)" :x2="x(t)" :y1="height - 24" :y2="height - 19" />
            <text :x="x(t)" :y="height - 5" :text-anchor="x(t) > width - 22 ? 'end' : 'middle'">
              {{ stopwatch(t) }}
            </text>
          </template>
        </g>
        <g v-for="pin in pins" :key="pin.text" class="pin">
          <line :x1="pin.at" :x2="pin.at" :y1="top - 2" :y2="pinFoot(pin.site)" />
          <circle :cx="pin.at" :cy="pinFoot(pin.site)" r="7" />
          <text v-if="pin.told" :x="pin.at + 11" :y="pinFoot(pin.site) + 5">{{ pin.text }}</text>
          <title v-else>{{ pin.text }}</title>
        </g>
        <g v-if="nowS != null" class="now">
          <line :x1="x(nowS)" :x2="x(nowS)" :y1="top - 22" :y2="height - 24" />
          <path :d="`M${x(nowS) - 8} ${top - 24} h16 l-8 11z`" />
        </g>
        <g v-if="pulledS != null" class="pulled">
          <line :x1="x(pulledS)" :x2="x(pulledS)" :y1="top - 18" :y2="height - 24" />
          <text :x="x(pulledS) - 5" :y="top - 20" text-anchor="end">
            out {{ stopwatch(pulledS) }}
          </text>
        </g>
      </g>
    </svg>
    <!-- Coats that can be taken hold of, and stations that can be tapped, lie over the drawing. -->
    <slot name="coats" :left="LEFT" :width="width" :until="until" />
    <slot name="stations" :left="LEFT" :width="width" :until="until" />
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  width: 100%;
  overflow: hidden;
}
svg {
  display: block;
  font-family: var(--kettle-text);
  font-variant-numeric: tabular-nums;
}
text {
  fill: var(--kettle-ink);
  font-size: 14px;
}
.site {
  font-weight: 700;
}
.word {
  fill: #fff;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(0 0 0 / 65%);
  stroke-width: 3px;
}
.cut {
  stroke: rgb(255 255 255 / 70%);
  stroke-width: 1;
}
.ember {
  stop-color: var(--kettle-ember);
}
.pin line {
  stroke: #fff;
  stroke-width: 2;
}
.pin circle {
  fill: var(--kettle-paper);
  stroke: var(--kettle-ink);
  stroke-width: 3;
}
.pin text {
  fill: #fff;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(0 0 0 / 70%);
  stroke-width: 3.5px;
}
.mark path {
  stroke: #fff;
  stroke-width: 2;
}
.mark text {
  fill: #fff;
  font-size: 12.5px;
}
.coat path {
  fill: var(--kettle-enamel-soft);
  stroke: var(--kettle-sheet);
}
.turn path {
  fill: none;
  stroke: var(--kettle-ink);
  stroke-width: 2;
}
.turn line {
  stroke: #fff;
  stroke-width: 2;
  stroke-dasharray: 6 3;
}
.look line {
  stroke: var(--kettle-ink);
  stroke-dasharray: 3 4;
}
.risk line {
  stroke: var(--kettle-line);
}
.risk .accepted {
  stroke: var(--kettle-ember);
  stroke-dasharray: 2 4;
}
.risk polyline {
  fill: none;
  stroke: var(--kettle-stop);
  stroke-width: 2.5;
}
.axis line {
  stroke: var(--kettle-ink-soft);
}
.axis text {
  fill: var(--kettle-ink-soft);
}
.now line {
  stroke: var(--kettle-ember);
  stroke-width: 3;
}
.now path {
  fill: var(--kettle-ember);
}
.pulled line {
  stroke: var(--kettle-ink);
  stroke-width: 2.5;
}
.pulled text {
  font-weight: 700;
}
</style>
