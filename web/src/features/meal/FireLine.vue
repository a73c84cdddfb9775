<script setup lang="ts">
/** The meal as ribbons of heat that flow through the appliances to one plate; every pair of hands is
 * a thread that visits them. The plate is dragged in time. */
import { computed, nextTick, ref, watch } from 'vue'
import { useElementSize, useScroll } from '@vueuse/core'
import type { Schedule } from '@/api/client'
import { clock, duration } from '@/shared/format/time'
import {
  BOARD,
  busySpans,
  fill,
  fireLine,
  minute,
  Scale,
  ticks,
  WIDTH,
  type Piece,
  type Ribbon,
} from './fireLine'
import type { Away } from './nights'
import FireTrouble from './FireTrouble.vue'
import SupperPlate from './SupperPlate.vue'

const props = defineProps<{
  plan: Schedule
  wanted: string
  dim: boolean
  shown: string
  away: readonly Away[]
}>()
const emit = defineEmits<{ move: [minutes: number]; show: [key: string] }>()

const CURVE = 16
/** Of the words on a span without hands. */
const AWAY_ROOM = 96
const box = ref<HTMLElement>()
const { width: room } = useElementSize(box)
/** Names of the appliances stay in sight where the drawing is wider than the page. */
const { x: scrolled } = useScroll(box)
const width = computed(() => Math.max(WIDTH.least, room.value))
const right = computed(() => width.value - WIDTH.right)
const drawn = computed(() => fireLine(props.plan))
const scale = computed(() => {
  const { from, to } = drawn.value
  return new Scale(busySpans(props.plan.tasks, to), from, to, WIDTH.left, right.value)
})
const x = (at: number) => scale.value.x(at)
const marks = computed(() => ticks(scale.value, drawn.value.from, drawn.value.to))
/** Spans without hands, as far as the drawing goes. */
const nights = computed(() => {
  const { from, to } = drawn.value
  return props.away
    .map((one) => ({ from: Math.max(minute(one.start), from), to: Math.min(minute(one.end), to) }))
    .filter((one) => one.to > one.from)
})
const iso = (at: number) => new Date(at * 60_000)
/** The plate stands where food comes from, last of all: out of every heat. */
const plateY = computed(() => {
  const out = drawn.value.channels.find((channel) => channel.name === BOARD)
  return out ? out.top + out.height / 2 : drawn.value.height / 2
})
const plateX = computed(() => right.value + 48)

/** A ribbon's course between two of its pieces, and to the plate. */
const bend = (x1: number, y1: number, x2: number, y2: number) => {
  const half = Math.max(4, Math.min(CURVE, (x2 - x1) / 2))
  return `M${x1} ${y1} C${x1 + half} ${y1} ${x2 - half} ${y2} ${x2} ${y2}`
}
const course = (piece: Piece) => `M${x(piece.from)} ${piece.y} H${x(piece.to)}`
function joints(ribbon: Ribbon) {
  const found: { d: string; piece: Piece }[] = []
  ribbon.pieces.forEach((piece, n) => {
    const next = ribbon.pieces[n + 1]
    if (!next || next.y === piece.y) return
    const at = x(piece.to)
    found.push({ d: bend(at - CURVE / 2, piece.y, at + CURVE / 2, next.y), piece: next })
  })
  return found
}
const pour = (ribbon: Ribbon) => {
  const last = ribbon.pieces.at(-1)!
  return bend(x(last.to), last.y, plateX.value - 20, plateY.value)
}
/** Words go where there is room for them. */
const fits = (piece: Piece) => x(piece.to) - x(piece.from) > 7.4 * piece.label.length + 12
/** In the widest stretch that no hands visit. */
function wordsAt(piece: Piece): number {
  const visits = drawn.value.threads
    .flat()
    .flatMap((visit) => [visit.from, visit.to])
    .filter((at) => at > piece.from && at < piece.to)
  const ends = [piece.from, ...visits, piece.to].map(x).sort((a, b) => a - b)
  let [middle, widest] = [(ends[0]! + ends.at(-1)!) / 2, 0]
  ends.slice(1).forEach((end, n) => {
    if (end - ends[n]! <= widest) return
    widest = end - ends[n]!
    middle = ends[n]! + widest / 2
  })
  return middle
}
const named = (ribbon: Ribbon) => ribbon.name.slice(0, 34)

const threads = computed(() =>
  drawn.value.threads.map((visits, pair) => {
    let d = ''
    visits.forEach((visit, n) => {
      const y = visit.y + 4 * pair
      const before = visits[n - 1]
      if (!before) d += `M${x(visit.from)} ${y}`
      else {
        const [x1, x2] = [x(before.to), x(visit.from)]
        const mid = (x1 + x2) / 2
        d += ` C${mid} ${before.y + 4 * pair} ${mid} ${y} ${x2} ${y}`
      }
      d += ` H${x(visit.to)}`
    })
    return { d, visits, pair }
  }),
)

// The end of the evening is what one looks for.
watch(room, async () => {
  await nextTick()
  if (box.value) box.value.scrollLeft = box.value.scrollWidth
})
</script>

<template>
  <div
    ref="box"
    class="fire-line"
    :class="{ dim }"
    tabindex="0"
    role="region"
    aria-label="The evening, drawn"
    data-test="fire-line"
  >
    <svg :width="width" :height="drawn.height" :viewBox="`0 0 ${width} ${drawn.height}`">
      <g v-for="channel in drawn.channels" :key="channel.name">
        <rect
          class="channel"
          :class="{ board: channel.name === BOARD }"
          x="8"
          :y="channel.top + 3"
          :width="right - 2"
          :height="channel.height - 6"
          rx="12"
        />
      </g>
      <g v-for="at in marks" :key="at" aria-hidden="true">
        <line class="tick" :x1="x(at)" :x2="x(at)" y1="24" :y2="drawn.height - 40" />
        <text class="hour" :x="x(at)" y="17">{{ clock(iso(at)) }}</text>
      </g>
      <g v-for="one in nights" :key="`away ${one.from}`" class="night" data-test="away-span">
        <rect
          :x="x(one.from)"
          :width="x(one.to) - x(one.from)"
          y="24"
          :height="drawn.height - 62"
          rx="6"
        />
        <text
          v-if="x(one.to) - x(one.from) > AWAY_ROOM"
          :x="(x(one.from) + x(one.to)) / 2"
          :y="drawn.height - 46"
        >
          asleep or out
        </text>
      </g>
      <g v-for="one in drawn.breaks" :key="one.from">
        <rect
          class="gap"
          :x="x(one.from) + 3"
          :width="Math.max(4, x(one.to) - x(one.from) - 6)"
          y="26"
          :height="drawn.height - 66"
          rx="6"
        />
        <text class="long" :x="(x(one.from) + x(one.to)) / 2" :y="drawn.height - 20">
          {{ duration(one.minutes * 60) }}
        </text>
      </g>
      <g
        v-for="ribbon in drawn.ribbons"
        :key="ribbon.id"
        class="ribbon"
        :class="{ faint: shown && !shown.startsWith(`${ribbon.id}/`) }"
      >
        <path class="pour" :d="pour(ribbon)" :style="{ stroke: fill(ribbon.pieces.at(-1)!) }" />
        <path
          v-for="(joint, n) in joints(ribbon)"
          :key="`j${n}`"
          class="flow"
          :d="joint.d"
          :style="{ stroke: fill(joint.piece) }"
        />
        <g v-for="piece in ribbon.pieces" :key="piece.from">
          <path
            class="flow"
            :class="piece.kind"
            :d="course(piece)"
            :style="{ stroke: fill(piece) }"
          >
            <title>
              {{ ribbon.name }}: {{ piece.label || piece.channel || 'out' }},
              {{ clock(iso(piece.from)) }} to
              {{ clock(iso(piece.to)) }}
            </title>
          </path>
        </g>
      </g>
      <FireTrouble :plan="plan" :drawn="drawn" :x="x" />
      <g v-for="thread in threads" :key="thread.pair" class="thread" :class="`pair-${thread.pair}`">
        <path class="under" :d="thread.d" />
        <path :d="thread.d" />
        <circle
          v-for="visit in thread.visits"
          :key="visit.key"
          :cx="x(visit.from)"
          :cy="visit.y + 4 * thread.pair"
          :r="visit.key === shown ? 7 : 3.6"
          :class="{ fire: visit.fire, here: visit.key === shown }"
          @click="emit('show', visit.key)"
        >
          <title>{{ clock(iso(visit.from)) }} {{ visit.label }}</title>
        </circle>
      </g>
      <g v-for="ribbon in drawn.ribbons" :key="`words ${ribbon.id}`" class="words">
        <template v-for="piece in ribbon.pieces" :key="piece.from">
          <text
            v-if="piece.label && fits(piece)"
            class="act"
            :x="wordsAt(piece)"
            :y="piece.y + 5"
            :style="{ stroke: fill(piece) }"
          >
            {{ piece.label }}
          </text>
        </template>
        <text class="name" :x="x(ribbon.pieces[0]!.from) + 9" :y="ribbon.pieces[0]!.y - 12">
          {{ named(ribbon) }}
        </text>
      </g>
      <g v-for="channel in drawn.channels" :key="`name ${channel.name}`">
        <text class="place" :x="scrolled + 20" :y="channel.top + channel.height / 2 + 5">
          {{ channel.name === BOARD ? 'out' : channel.name.slice(0, 17) }}
        </text>
      </g>
      <SupperPlate
        :wanted="wanted"
        :x="plateX"
        :y="plateY"
        :per-minute="scale.perMinute"
        @move="(by: number) => emit('move', by)"
      />
    </svg>
  </div>
</template>

<style scoped>
.fire-line {
  background: var(--kettle-night);
  border-radius: 18px;
  overflow-x: auto;
  padding: 8px 0 4px;
}
.dim svg {
  opacity: 0.6;
}
svg {
  display: block;
}
text {
  fill: var(--kettle-chalk);
  font: 700 14px var(--kettle-text);
  font-variant-numeric: tabular-nums;
}
.channel {
  fill: rgb(255 255 255 / 7%);
}
.channel.board {
  fill: rgb(255 255 255 / 3%);
}
.place {
  fill: var(--kettle-chalk-soft);
  font-weight: 400;
  paint-order: stroke;
  stroke: var(--kettle-night);
  stroke-width: 4px;
}
.tick {
  stroke: rgb(255 255 255 / 12%);
}
.hour,
.long {
  text-anchor: middle;
  fill: var(--kettle-chalk-soft);
  font-weight: 400;
  font-size: 13px;
}
.night rect {
  fill: rgb(0 0 0 / 34%);
}
.night text {
  text-anchor: middle;
  fill: var(--kettle-chalk-soft);
  font-weight: 400;
  font-size: 13px;
}
.gap {
  fill: none;
  stroke: rgb(255 255 255 / 26%);
  stroke-dasharray: 2 7;
}
.flow,
.pour {
  fill: none;
  stroke-width: 17;
  stroke-linecap: round;
}
.pour {
  stroke-width: 13;
  opacity: 0.75;
}
.flow.cold {
  stroke-width: 9;
}
.flow.warm {
  stroke-width: 11;
}
.flow.fire {
  stroke-width: 24;
}
.faint {
  opacity: 0.35;
}
.act {
  text-anchor: middle;
  paint-order: stroke;
  stroke-width: 6px;
  fill: var(--kettle-coal);
  font-size: 13px;
  pointer-events: none;
}
.name {
  font-size: 14px;
  paint-order: stroke;
  stroke: var(--kettle-night);
  stroke-width: 4px;
}
.thread path {
  fill: none;
  stroke: var(--kettle-chalk);
  stroke-width: 2;
}
.thread .under {
  stroke: var(--kettle-night);
  stroke-width: 5;
}
.pair-1 path:not(.under) {
  stroke-dasharray: 7 4;
}
.pair-2 path:not(.under) {
  stroke-dasharray: 2 4;
}
.thread circle {
  fill: var(--kettle-chalk);
  stroke: var(--kettle-night);
  stroke-width: 2;
  cursor: pointer;
}
.thread circle.here {
  fill: var(--kettle-glow);
}
</style>
