<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { Explorer } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import GlazePatterns from '@/shared/ui/GlazePatterns.vue'
import { ticks } from '@/shared/ui/glaze'
import { heatText, labels, nearest, runs, settable } from './explorer'

const props = defineProps<{ explorer: Explorer; site: 'face' | 'edge'; caramelises: boolean }>()
const emit = defineEmits<{ pick: [heat: number] }>()
const box = ref<HTMLElement>()
const { width: measured } = useElementSize(box)
const id = useId()
const LEFT = 64
const ROW = 8
const full = computed(() => Math.max(280, measured.value || 280))
const width = computed(() => full.value - LEFT - 8)
const rows = computed(() => props.explorer.heats.length)
const height = computed(() => rows.value * ROW)
// A broiler is fiercest close up, an air fryer at its highest: the fiercest heat is always drawn on top.
const flipped = computed(() => props.explorer.axis !== 'rack_m')
const y = (row: number) => (flipped.value ? rows.value - 1 - row : row) * ROW
const cell = computed(() => width.value / props.explorer.times_s.length)
const until = computed(() => props.explorer.times_s.at(-1)!)
const grid = computed(() => props.explorer[props.site])
const present = computed(() => nearest(props.explorer.heats, props.explorer.present))
const bare: Record<string, string> = {
  amber: 'browned',
  mahogany: 'well browned',
  bitter: 'too dark',
  burnt: 'scorched',
}
const word = (region: number) => {
  const name = props.explorer.regions[region]!
  return props.caramelises ? name : (bare[name] ?? name)
}
const every = computed(() => [0, 10, 20, 30, rows.value - 1])

function pick(event: MouseEvent) {
  const top = (event.currentTarget as SVGElement).getBoundingClientRect().top
  const place = Math.min(rows.value - 1, Math.max(0, Math.floor((event.clientY - top) / ROW)))
  emit(
    'pick',
    settable(props.explorer, props.explorer.heats[flipped.value ? rows.value - 1 - place : place]!),
  )
}

function step(direction: number) {
  const row = Math.min(
    rows.value - 1,
    Math.max(0, present.value + direction * (flipped.value ? -2 : 2)),
  )
  emit('pick', settable(props.explorer, props.explorer.heats[row]!))
}
</script>

<template>
  <div ref="box" class="map">
    <svg :width="full" :height="height + 34" :viewBox="`0 0 ${full} ${height + 34}`">
      <GlazePatterns :id="id" />
      <g v-for="row in every" :key="row" class="heat">
        <text :x="LEFT - 10" :y="y(row) + 9" text-anchor="end">
          {{ heatText(explorer, explorer.heats[row]!) }}
        </text>
      </g>
      <g
        :transform="`translate(${LEFT} 0)`"
        class="cells"
        role="slider"
        tabindex="0"
        aria-orientation="vertical"
        data-test="heat-map"
        :aria-label="`What the ${site} is, by time and heat`"
        :aria-valuenow="explorer.present"
        :aria-valuemin="explorer.heats[0]"
        :aria-valuemax="explorer.heats[rows - 1]"
        :aria-valuetext="heatText(explorer, explorer.present)"
        @click="pick"
        @keydown.up.prevent="step(-1)"
        @keydown.down.prevent="step(1)"
      >
        <rect :width="width" :height="height" fill="transparent" />
        <g v-for="r in runs(grid)" :key="`${r.row}-${r.from}`">
          <rect
            :x="r.from * cell"
            :y="y(r.row)"
            :width="(r.to - r.from) * cell + 0.4"
            :height="ROW + 0.4"
            :fill="explorer.colours[r.region]!.colour"
          />
          <rect
            :x="r.from * cell"
            :y="y(r.row)"
            :width="(r.to - r.from) * cell"
            :height="ROW"
            :fill="`url(#${id}-p-${explorer.regions[r.region]})`"
          />
        </g>
        <text
          v-for="l in labels(grid, Math.ceil(72 / cell))"
          :key="l.region"
          class="word"
          :x="((l.from + l.to) / 2) * cell"
          :y="y(l.row) + 10"
          text-anchor="middle"
        >
          {{ word(l.region) }}
        </text>
        <rect class="present" x="0" :y="y(present)" :width="width" :height="ROW" />
        <line
          v-if="explorer.pull_s"
          class="pull"
          :x1="(explorer.pull_s / until) * width"
          :x2="(explorer.pull_s / until) * width"
          :y1="y(present) - 6"
          :y2="y(present) + ROW + 6"
        />
      </g>
      <g :transform="`translate(${LEFT} ${height})`" class="axis">
        <template v-for="t in ticks(until, width)" :key="t">
          <line :x1="(t / until) * width" :x2="(t / until) * width" y1="2" y2="8" />
          <text
            :x="(t / until) * width"
            y="26"
            :text-anchor="t === 0 ? 'start' : (t / until) * width > width - 24 ? 'end' : 'middle'"
          >
            {{ stopwatch(t) }}
          </text>
        </template>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.map {
  overflow: hidden;
}
svg {
  display: block;
  font-family: var(--kettle-text);
  font-variant-numeric: tabular-nums;
}
text {
  fill: var(--kettle-ink-soft);
  font-size: 14px;
}
.cells {
  cursor: pointer;
}
.word {
  fill: #fff;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(0 0 0 / 65%);
  stroke-width: 3px;
  pointer-events: none;
}
.present {
  fill: none;
  stroke: #fff;
  stroke-width: 2.5;
  paint-order: stroke;
}
.pull {
  stroke: var(--kettle-ember);
  stroke-width: 4;
}
.axis line {
  stroke: var(--kettle-ink-soft);
}
</style>
