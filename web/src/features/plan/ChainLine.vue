<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { ChainForecast } from '@/api/client'
import { clock, duration, span } from '@/shared/format/time'
import { besideLink, fillOf, links, rootOf } from './links'

const props = defineProps<{ forecast: ChainForecast }>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const id = useId()
const full = computed(() => Math.max(300, width.value || 300))
const line = computed(() => links(props.forecast.links, full.value))
const beside = computed(() =>
  props.forecast.links
    .filter((s) => !s.serial)
    .map((s) => besideLink(s, props.forecast.links, full.value)),
)
const headline = computed(
  () => (props.forecast.headline_s / props.forecast.total.likely_s) * full.value,
)
const inOrder = computed(() =>
  [...props.forecast.links].sort((a, b) => a.starts_at.localeCompare(b.starts_at)),
)
const shortName: Record<string, string> = {
  hold: 'timer',
  come_up: 'comes up',
  natural: 'release',
  finish: 'finish',
  slack: 'in hand',
  rest: 'rest',
  marinate: 'marinade',
  sit: 'it sits',
  thaw: 'thaws',
  cool: 'cools',
  kept: 'kept',
  heat_up: 'heats',
  oven_up: 'heats',
}
</script>

<template>
  <section class="chain" aria-label="From raw to plate">
    <div ref="box">
      <svg :viewBox="`0 0 ${full} 112`" :width="full" height="112" aria-hidden="true">
        <defs>
          <pattern
            :id="`${id}-wait`"
            width="9"
            height="9"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="9" height="9" class="wait-ground" />
            <rect width="3" height="9" class="wait-stroke" />
          </pattern>
        </defs>
        <g v-for="l in line" :key="l.stage.key">
          <rect
            :x="l.x + 0.75"
            y="8"
            :width="Math.max(1, l.width - 1.5)"
            height="46"
            :class="fillOf(l.stage)"
            :style="fillOf(l.stage) === 'wait' ? { fill: `url(#${id}-wait)` } : undefined"
          />
          <text
            v-if="l.width > 62 && shortName[rootOf(l.stage.key)]"
            :x="l.x + l.width / 2"
            y="37"
            text-anchor="middle"
            :class="`on-${fillOf(l.stage)}`"
          >
            {{ shortName[rootOf(l.stage.key)] }}
          </text>
        </g>
        <rect
          v-for="b in beside"
          :key="b.stage.key"
          :x="b.x"
          y="58"
          :width="b.width"
          height="7"
          :style="{ fill: `url(#${id}-wait)` }"
        />
        <g class="sum">
          <rect x="0" y="76" :width="headline" height="12" class="timer" />
          <text x="0" y="106">your timers {{ duration(forecast.headline_s) }}</text>
          <text :x="full" y="106" text-anchor="end">
            honest {{ duration(forecast.total.likely_s) }}
          </text>
          <line :x1="headline" :x2="full" y1="82" y2="82" />
        </g>
      </svg>
    </div>
    <ol class="links figure">
      <li
        v-for="stage in inOrder"
        :key="stage.key"
        :class="{ aside: !stage.serial, least: stage.key === forecast.least_sure }"
        :title="`${span(stage.band.low_s, stage.band.high_s)}${stage.note ? `, ${stage.note}` : ''}`"
        :data-test="`stage-${stage.key}`"
      >
        <span class="at">{{ clock(stage.starts_at) }}</span>
        <i :class="fillOf(stage)" />
        <span class="name"
          >{{ stage.label
          }}<small v-if="stage.key === forecast.least_sure"
            >least sure: {{ span(stage.band.low_s, stage.band.high_s) }}</small
          ></span
        >
        <span class="long">{{ duration(stage.band.likely_s) }}</span>
      </li>
    </ol>
    <p class="key quiet">
      <i class="timer" /> you set a timer <i class="fire" /> under fierce heat
      <i class="hands" /> hands <i class="wait" /> a wait nobody counts
    </p>
  </section>
</template>

<style scoped>
.chain > div {
  overflow: hidden;
}
svg {
  display: block;
  font-family: var(--kettle-text);
}
text {
  fill: var(--kettle-ink);
  font-size: 15px;
  font-weight: 700;
}
.timer {
  fill: var(--kettle-enamel);
  background: var(--kettle-enamel);
}
:global(html.dark .chain .timer) {
  fill: #7fa3c7;
  background: #7fa3c7;
}
.fire {
  fill: var(--kettle-ember);
  background: var(--kettle-ember);
}
.hands {
  fill: var(--kettle-hands);
  background: var(--kettle-hands);
}
.wait-ground {
  fill: var(--kettle-machine);
}
.wait-stroke {
  fill: var(--kettle-enamel-soft);
}
.wait {
  background: repeating-linear-gradient(
    135deg,
    var(--kettle-machine) 0 4px,
    var(--kettle-enamel-soft) 4px 6px
  );
}
.on-timer {
  fill: #fff;
}
:global(html.dark .chain .on-timer) {
  fill: #0b1826;
}
.on-fire {
  fill: var(--kettle-ember-ink);
}
.on-wait {
  paint-order: stroke;
  stroke: var(--kettle-machine);
  stroke-width: 5px;
}
.sum line {
  stroke: var(--kettle-ink-soft);
  stroke-dasharray: 2 4;
}
.links {
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
  columns: 3;
  column-gap: 36px;
}
.links li {
  display: grid;
  grid-template-columns: 48px 14px 1fr auto;
  gap: 9px;
  align-items: baseline;
  padding: 4px 0;
  font-size: 1rem;
  break-inside: avoid;
  border-bottom: 1px solid var(--kettle-line);
}
.links .at {
  font-weight: 700;
}
.links i,
.key i {
  width: 14px;
  height: 14px;
  border-radius: 3px;
  display: inline-block;
  align-self: center;
}
.aside {
  font-style: italic;
}
small {
  color: var(--kettle-ink-soft);
  font-size: 0.88rem;
}
.name small {
  display: block;
  line-height: 1.2;
}
.long {
  text-align: right;
  font-weight: 700;
}
.key {
  margin: 10px 0 0;
  font-size: 0.95rem;
}
.key i {
  margin-left: 14px;
  vertical-align: -2px;
}
.key i:first-child {
  margin-left: 0;
}
@media (max-width: 1000px) {
  .links {
    columns: 2;
  }
}
@media (max-width: 640px) {
  .links {
    columns: 1;
  }
}
</style>
