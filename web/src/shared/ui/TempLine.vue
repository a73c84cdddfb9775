<script setup lang="ts">
/** Temperatures along a length of time: lines over the danger zone, a moment read under the pointer. */
import { computed, ref } from 'vue'
import { useElementSize } from '@vueuse/core'
import { useUnits } from '@/shared/composables/useUnits'
import { temperature } from '@/shared/format/units'

export interface Point {
  /** Share of the whole length, 0 to 1. */
  x: number
  c: number
}
/** Colours of a fire, where it lies along the line. */
export interface Strip {
  from: number
  to: number
  colours: string[]
}
export interface Trace {
  name: string
  kind: 'middle' | 'whole' | 'around'
  points: Point[]
}
const props = defineProps<{
  traces: Trace[]
  label: string
  /** What a place along the line is called: "19:14, open it". */
  says: (x: number) => string
  ends?: [string, string]
  /** How tender it is, as a share of the wish. */
  tender?: Point[]
  /** How thick its crust is [mm], and from where on it crackles. */
  crust?: Point[]
  crackles?: number
  strips?: Strip[]
}>()

const BITE = 34 // of the track of tenderness
const CRUST = 26 // of the track of the crust
const STRIP = 16
const GAP = 8
const [TOP, FOOT, LEFT] = [14, 24, 58]
const DANGER: [number, number] = [5, 54.4]
const STEPS = [20, 50, 100]
const { degrees } = useUnits()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
/** Tracks under the temperatures, on the same axis. */
/** Two lines of one name have one place in the legend. */
const named = computed(() => [...new Map(props.traces.map((one) => [one.name, one])).values()])
const bite = computed(() => (props.tender?.length ? BITE + GAP : 0))
const glaze = computed(() => (props.strips?.length ? STRIP + GAP : 0))
const TEMPS = 190
const crisp = computed(() => (props.crust?.length ? CRUST + GAP : 0))
const HEIGHT = computed(() => TEMPS + bite.value + crisp.value + glaze.value)
const toBite = (share: number) => TEMPS - FOOT + GAP + BITE * (1 - Math.min(1.25, share) / 1.25)
const mostCrust = computed(() =>
  Math.max(1.5 * (props.crackles ?? 0.3), ...(props.crust ?? []).map((p) => p.c)),
)
const toCrust = (mm: number) => TEMPS - FOOT + bite.value + GAP + CRUST * (1 - mm / mostCrust.value)
/** A track that is filled from its ground up to a line. */
function filled(points: Point[], toHeight: (c: number) => number) {
  const top = points.map((p) => `L${toX(p.x).toFixed(1)} ${toHeight(p.c).toFixed(1)}`).join('')
  const last = points.at(-1)
  return last ? `M${LEFT} ${toHeight(0)}${top}L${toX(last.x).toFixed(1)} ${toHeight(0)}Z` : ''
}
const stripTop = computed(() => TEMPS - FOOT + bite.value + crisp.value + GAP)
const full = computed(() => Math.max(280, width.value || 280))
const range = computed(() => {
  const all = props.traces.flatMap((trace) => trace.points.map((point) => point.c))
  const [low, high] = [Math.min(0, ...all), Math.max(60, ...all)]
  const step = STEPS.find((s) => (high - low) / s <= 6) ?? 200
  return { low: Math.floor(low / step) * step, high: Math.ceil(high / step) * step, step }
})
const rules = computed(() => {
  const { low, high, step } = range.value
  return Array.from({ length: Math.round((high - low) / step) + 1 }, (_, i) => low + i * step)
})
const toX = (x: number) => LEFT + x * (full.value - LEFT)
const toY = (c: number) => {
  const { low, high } = range.value
  return TOP + (1 - (c - low) / (high - low)) * (TEMPS - TOP - FOOT)
}
const path = (points: Point[]) =>
  points.map((p, i) => `${i ? 'L' : 'M'}${toX(p.x).toFixed(1)} ${toY(p.c).toFixed(1)}`).join('')

const at = ref<number>()
const moment = computed(() => {
  const x = at.value
  if (x === undefined) return
  const read = props.traces.flatMap((trace) => {
    const c = valueAt(trace.points, x)
    return c === undefined ? [] : [`${trace.name} ${temperature(c, degrees.value)}`]
  })
  const share = props.tender?.length ? valueAt(props.tender, x) : undefined
  const soft = share === undefined ? [] : [`${Math.round(100 * share)} % of the wished bite`]
  const mm = props.crust?.length ? (valueAt(props.crust, x) ?? 0) : 0
  const dry =
    mm < 0.05
      ? []
      : [`crust ${mm.toFixed(1)} mm${mm >= (props.crackles ?? 9) ? ', it crackles' : ''}`]
  return [props.says(x), ...read, ...soft, ...dry].join(', ')
})

/** What a line reads at a place; nothing where it has none. */
function valueAt(points: Point[], x: number): number | undefined {
  const after = points.findIndex((p) => p.x >= x)
  if (after < 0 || (after === 0 && points[0]!.x > x)) return
  const [a, b] = [points[Math.max(0, after - 1)]!, points[after]!]
  const share = b.x > a.x ? (x - a.x) / (b.x - a.x) : 1
  return a.c + share * (b.c - a.c)
}

function point(event: PointerEvent) {
  const { left } = box.value!.getBoundingClientRect()
  at.value = Math.min(1, Math.max(0, (event.clientX - left - LEFT) / (full.value - LEFT)))
}
/** A finger that is lifted leaves its reading; a mouse takes it along. */
function leave(event: PointerEvent) {
  if (event.pointerType === 'mouse') at.value = undefined
}
const KEYS: Record<string, (x: number) => number> = {
  ArrowLeft: (x) => x - 0.02,
  ArrowRight: (x) => x + 0.02,
  Home: () => 0,
  End: () => 1,
}
function key(event: KeyboardEvent) {
  const step = KEYS[event.key]
  if (!step) return
  event.preventDefault()
  at.value = Math.min(1, Math.max(0, step(at.value ?? 0)))
}
</script>

<template>
  <figure>
    <figcaption class="names">
      <span v-for="trace in named" :key="trace.name + trace.kind">
        <svg width="30" height="10" aria-hidden="true">
          <line x1="0" x2="30" y1="5" y2="5" :class="trace.kind" />
        </svg>
        {{ trace.name }}
      </span>
      <span><i class="danger" /> where germs grow</span>
    </figcaption>
    <div
      ref="box"
      tabindex="0"
      role="slider"
      :aria-label="label"
      aria-valuemin="0"
      aria-valuemax="100"
      :aria-valuenow="Math.round(100 * (at ?? 0))"
      :aria-valuetext="moment ?? label"
      data-test="temp-line"
      @pointermove="point"
      @pointerdown="point"
      @pointerleave="leave"
      @focus="at ??= 0"
      @blur="at = undefined"
      @keydown="key"
    >
      <svg :viewBox="`0 0 ${full} ${HEIGHT}`" :width="full" :height="HEIGHT" aria-hidden="true">
        <rect
          class="danger"
          :x="LEFT"
          :width="full - LEFT"
          :y="toY(DANGER[1])"
          :height="toY(DANGER[0]) - toY(DANGER[1])"
        />
        <g v-for="rule in rules" :key="rule" class="rule">
          <line :x1="LEFT" :x2="full" :y1="toY(rule)" :y2="toY(rule)" />
          <text :x="LEFT - 8" :y="toY(rule) + 5" text-anchor="end">
            {{ temperature(rule, degrees) }}
          </text>
        </g>
        <path v-for="(trace, i) in traces" :key="i" :d="path(trace.points)" :class="trace.kind" />
        <template v-if="bite">
          <path class="bite" :d="filled(tender ?? [], toBite)" />
          <line class="wish" :x1="LEFT" :x2="full" :y1="toBite(1)" :y2="toBite(1)" />
          <text :x="LEFT - 8" :y="toBite(1) + 5" text-anchor="end">tender</text>
        </template>
        <template v-if="crisp">
          <path class="crust" :d="filled(crust ?? [], toCrust)" />
          <line
            v-if="crackles"
            class="wish"
            :x1="LEFT"
            :x2="full"
            :y1="toCrust(crackles)"
            :y2="toCrust(crackles)"
          />
          <text :x="LEFT - 8" :y="toCrust(crackles ?? 0) + 5" text-anchor="end">crisp</text>
        </template>
        <g v-for="(strip, n) in strips" :key="`s${n}`">
          <rect
            v-for="(colour, i) in strip.colours"
            :key="i"
            :x="toX(strip.from + (i / strip.colours.length) * (strip.to - strip.from))"
            :width="
              Math.max(1, ((strip.to - strip.from) / strip.colours.length) * (full - LEFT)) + 0.5
            "
            :y="stripTop"
            :height="STRIP"
            :fill="colour"
          />
        </g>
        <line
          v-if="at !== undefined"
          class="here"
          :x1="toX(at)"
          :x2="toX(at)"
          :y1="TOP"
          :y2="HEIGHT - FOOT"
        />
        <template v-if="ends">
          <text :x="LEFT" :y="HEIGHT - 4">{{ ends[0] }}</text>
          <text :x="full" :y="HEIGHT - 4" text-anchor="end">{{ ends[1] }}</text>
        </template>
      </svg>
    </div>
    <p class="figure read" data-test="temp-read">{{ moment ?? 'Point at a moment.' }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin-bottom: 4px;
}
.names span {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
.names i {
  width: 22px;
  height: 12px;
  background: var(--kettle-careful-soft);
  border: 1px solid var(--kettle-careful);
}
[role='slider'] {
  touch-action: pan-y;
  cursor: crosshair;
  border-radius: 8px;
}
svg {
  display: block;
}
path,
.names line {
  fill: none;
  stroke-linejoin: round;
}
.bite {
  fill: var(--kettle-ember-soft);
  stroke: var(--kettle-ember);
  stroke-width: 1.5;
}
.crust {
  fill: var(--kettle-careful-soft);
  stroke: var(--kettle-careful);
  stroke-width: 1.5;
}
.wish {
  stroke: var(--kettle-ink-soft);
  stroke-dasharray: 5 4;
}
.middle {
  stroke: var(--kettle-enamel);
  stroke-width: 3.5;
}
:global(html.dark .middle) {
  stroke: var(--kettle-hands);
}
.whole {
  stroke: var(--kettle-enamel-soft);
  stroke-width: 2;
  stroke-dasharray: 2 4;
}
.around {
  stroke: var(--kettle-ember);
  stroke-width: 2.5;
  stroke-dasharray: 8 5;
}
rect.danger {
  fill: var(--kettle-careful-soft);
}
.rule line {
  stroke: var(--kettle-line);
}
text {
  font: 400 14px var(--kettle-text);
  fill: var(--kettle-ink-soft);
}
.here {
  stroke: var(--kettle-ink);
  stroke-width: 2;
}
.read {
  min-height: 1.4em;
  margin: 2px 0 0;
  font-weight: 700;
}
</style>
