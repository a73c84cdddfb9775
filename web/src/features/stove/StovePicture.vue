<script setup lang="ts">
/** The kitchen as it is now: vessel, heat and food, in the colour that the strip gives it at this moment. */
import { computed } from 'vue'
import type { Glaze, Live } from '@/api/client'
import { cutDrawing } from '@/shared/ui/cuts'
import { stretches } from '@/shared/ui/glaze'
import { rackFloor, vesselOf } from './vessels'

const props = defineProps<{
  picture: Live['picture']
  glaze?: Glaze
  /** Seconds under the fire, counted on by the page. */
  underS: number | null
}>()
const MOST_PIECES = 3
const shows = computed(() => props.picture.shows)
const vessel = computed(() => vesselOf(props.picture.vessel))
const floor = computed(() =>
  vessel.value ? rackFloor(vessel.value, props.picture.rack_mm) : BOARD.floor,
)
const BOARD = { x: 150, floor: 176, breadth: 200 }
const place = computed(() => vessel.value?.food ?? BOARD)
const heatS = computed(() => props.underS ?? props.picture.heat_s)
/** In the fire, and after it, the strip says what colour it has; a coat shows from when it is on. */
const told = computed(() => props.picture.coats > 0 || heatS.value > 0)
function colourAt(colours: string[] | undefined): string | undefined {
  if (!props.glaze || !colours) return undefined
  const next = props.glaze.sample_s.findIndex((t) => t > heatS.value)
  return colours[next === -1 ? colours.length - 1 : Math.max(0, next - 1)]
}
const cut = computed(() => cutDrawing(props.picture.cut))
const face = computed(
  () =>
    (told.value ? colourAt(props.glaze?.face) : undefined) ??
    (props.picture.cooked ? 'var(--kettle-cooked)' : cut.value.tone),
)
const edge = computed(() => (told.value ? colourAt(props.glaze?.edge) : undefined) ?? face.value)
function wordAt(site: string): string {
  if (!props.glaze) return ''
  return (
    stretches(props.glaze, site, props.glaze.horizon_s).find((s) => heatS.value < s.to)?.word ?? ''
  )
}
const words = computed(() =>
  told.value && props.glaze ? `face ${wordAt('face')}, edges ${wordAt('edge')}` : '',
)
const count = computed(() => Math.min(MOST_PIECES, props.picture.pieces))
const breadth = computed(() => Math.min(96, place.value.breadth / count.value))
const at = (i: number) => place.value.x + (i - (count.value - 1) / 2) * breadth.value
const scale = computed(() => (breadth.value * 0.94) / 64)
const bubbles = computed(() => {
  const from = props.glaze?.milestones['face']?.['bubbling']?.likely_s
  return shows.value === 'under' && from != null && heatS.value >= from
})
const lit = computed(() => ['warming', 'holding', 'under'].includes(shows.value))
const heating = computed(() => shows.value === 'empty')
const shut = computed(() =>
  ['warming', 'holding', 'falling', 'venting', 'under'].includes(shows.value),
)
const pin = computed(() =>
  props.picture.vessel === 'pressure' && shut.value
    ? ['holding', 'falling'].includes(shows.value)
      ? 'up'
      : 'down'
    : '',
)
const steam = computed(
  () =>
    ({ warming: 'wisps', venting: 'jet', open: 'wisps', rest: 'wisps' })[shows.value] ??
    (vessel.value && shows.value === 'holding' && !pin.value ? 'wisps' : ''),
)
const vent = computed(() => vessel.value?.steam ?? { x: 150, y: 96 })
</script>

<template>
  <svg
    class="picture"
    viewBox="-10 -24 320 250"
    preserveAspectRatio="xMidYMid meet"
    role="img"
    :aria-label="words || 'the kitchen now'"
    data-test="picture"
    :data-shows="shows"
    :data-vessel="picture.vessel"
  >
    <path class="top" d="M-20 222h340" />
    <template v-if="vessel">
      <path
        v-if="vessel.elementY !== undefined"
        class="rack"
        :d="`M28 ${floor}h244M28 ${floor + 8}h244`"
      />
      <path v-if="vessel.liquid && !heating" class="liquid" :d="vessel.liquid" />
    </template>
    <g v-else-if="shows === 'plate'" class="ware">
      <path d="M20 186q0 22 40 22h180q40 0 40-22z" />
      <path d="M10 184h280" />
    </g>
    <g v-else-if="shows === 'cold'" class="ware">
      <path d="M40-8h220v216H40zM40 60h220M226 16v26M226 78v40" />
      <path d="M150 84v40M133 94l34 20M167 94l-34 20" />
    </g>
    <path
      v-else
      class="ware"
      d="M24 178h252q10 0 10 10v6q0 10-10 10H24q-10 0-10-10v-6q0-10 10-10z"
    />
    <g v-if="!heating" class="food">
      <g v-if="picture.strands" :transform="`translate(${place.x} ${floor})`">
        <path
          v-for="i in 7"
          :key="i"
          :d="`M${-80 + i * 20}-4q${i % 2 ? 14 : -12}-22 -4-44`"
          :stroke="i % 3 ? face : edge"
          class="strand"
        />
      </g>
      <template v-else>
        <g
          v-for="i in count"
          :key="i"
          :transform="`translate(${at(i - 1)} ${floor}) scale(${scale}) translate(-32 -54)`"
        >
          <path :d="cut.flesh" :fill="face" :stroke="edge" stroke-width="4" />
          <path class="bone" :d="cut.bone" />
          <path v-if="picture.coats" class="sheen" d="M20 24q8-6 20-4" />
          <g v-if="bubbles" class="bubbles">
            <circle cx="24" cy="34" r="2.4" />
            <circle cx="34" cy="28" r="1.8" />
            <circle cx="42" cy="36" r="2.2" />
          </g>
        </g>
      </template>
      <path v-if="vessel?.around" class="around" :d="vessel.around" />
    </g>
    <template v-if="vessel">
      <path class="body" :d="vessel.body" />
      <path v-if="vessel.lid && (shut || heating)" class="body lid" :d="vessel.lid" />
      <path v-else-if="vessel.lidOff" class="body" :d="vessel.lidOff" />
      <path
        v-if="!(vessel.lid && shows === 'open')"
        class="glow"
        :class="{ lit, heating }"
        :d="vessel.glow"
      />
      <g v-if="pin" class="pin" data-test="pin" :data-pin="pin">
        <rect
          x="88"
          :y="pin === 'up' ? 24 : 42"
          width="14"
          :height="pin === 'up' ? 30 : 12"
          rx="4"
        />
        <text x="80" y="30" text-anchor="end">pin {{ pin }}</text>
      </g>
    </template>
    <path v-if="shows === 'covered'" class="around" d="M36 178q6-96 114-96t114 96z" />
    <g v-if="shows === 'check'" class="probe">
      <path d="M150 140L216 40" />
      <circle cx="224" cy="28" r="20" />
      <path d="M224 28l8-10" />
    </g>
    <g v-if="shows === 'brush'" class="brush">
      <path d="M262 20l-62 84" />
      <path class="bristles" d="M204 98l-12 34q-8 2-14-2-2-8 2-14z" />
    </g>
    <g v-if="steam" class="steam" :class="steam" :transform="`translate(${vent.x} ${vent.y})`">
      <path d="M0 0q-12-14 0-26t0-22" />
      <path v-if="steam === 'jet'" d="M14 0q-10-18 4-34t0-34M-14 0q-14-18 0-34t-4-34" />
      <path v-else d="M18-4q-9-11 0-20" />
    </g>
  </svg>
</template>

<style scoped>
.picture {
  display: block;
  width: 54%;
  height: 100%;
  margin-left: auto;
}
path,
circle {
  stroke-linecap: round;
  stroke-linejoin: round;
}
.body,
.ware,
.ware path {
  fill: none;
  stroke: var(--kettle-chalk-soft);
  stroke-width: 4.5;
}
.rack {
  fill: none;
  stroke: var(--kettle-chalk-soft);
  stroke-width: 3;
}
.body.lid {
  fill: rgb(14 34 56 / 72%);
}
.top {
  stroke: rgb(233 226 207 / 45%);
  stroke-width: 3;
}
.glow {
  fill: none;
  stroke: rgb(233 226 207 / 35%);
  stroke-width: 5;
}
.glow.heating {
  stroke: var(--kettle-warming);
  stroke-dasharray: 10 8;
}
.glow.lit {
  stroke: var(--kettle-glow);
  filter: drop-shadow(0 0 7px var(--kettle-glow));
}
.liquid {
  fill: none;
  stroke: var(--kettle-water);
  stroke-width: 4;
}
.around {
  fill: rgb(233 226 207 / 22%);
  stroke: var(--kettle-chalk-soft);
  stroke-width: 3.5;
}
.bone {
  fill: none;
  stroke: rgb(20 12 6 / 55%);
  stroke-width: 2.2;
}
.sheen {
  fill: none;
  stroke: rgb(255 255 255 / 70%);
  stroke-width: 3;
}
.strand {
  fill: none;
  stroke-width: 9;
}
.bubbles circle {
  fill: rgb(255 246 225 / 85%);
  animation: rise 1.1s infinite alternate;
}
.pin rect {
  fill: var(--kettle-glow);
}
.pin text {
  fill: var(--kettle-chalk-soft);
  font: 700 17px var(--kettle-text);
}
.probe path,
.probe circle,
.brush path {
  fill: none;
  stroke: var(--kettle-chalk-soft);
  stroke-width: 5;
}
.brush .bristles {
  fill: var(--kettle-warming);
  stroke: var(--kettle-warming);
}
.steam path {
  fill: none;
  stroke: rgb(233 226 207 / 80%);
  stroke-width: 4;
  animation: drift 2.4s infinite alternate ease-in-out;
}
.steam.jet path {
  stroke-width: 6;
}
.alone .picture {
  width: 100%;
}
@media (max-width: 860px) {
  .picture {
    width: 58%;
  }
}
@keyframes drift {
  to {
    transform: translateY(-6px);
  }
}
@keyframes rise {
  to {
    transform: translateY(-2px);
  }
}
</style>
