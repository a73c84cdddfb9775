<script setup lang="ts">
import { computed } from 'vue'
import type { Ledger } from '@/api/client'
import { bands, type PortionPlan } from './ledger'

/** The ledger as a flow from bowl to plate. Clean runs plain, raw-contact is hatched, boiled is dotted; each says so. */
const props = defineProps<{ portions: PortionPlan[]; ledger: Ledger; batchG: number }>()
const W = 720
const height = computed(() => Math.max(120, props.portions.length * 74))
const found = computed(() => bands(props.portions, props.ledger, height.value))
const BOWL = 92
const PLATE = W - 92
const MIDDLE = 380
const path = (y: number, h: number) =>
  `M${BOWL} ${height.value / 2} C${BOWL + 60} ${height.value / 2}, ${BOWL + 60} ${y + h / 2}, ${BOWL + 130} ${y + h / 2}`
const ENDS = {
  plate: 'reaches the plate',
  stays: 'stays behind',
  stopped: 'stopped before the plate',
}
const told = computed(() =>
  found.value.map((b) => `${b.name}, ${Math.round(b.mass_g)} g: ${b.contact}, ${ENDS[b.end]}`),
)
const spoken = computed(() => told.value.join('; '))
</script>

<template>
  <svg
    class="flow"
    :viewBox="`0 0 ${W} ${height + 34}`"
    role="img"
    :aria-label="`From bowl to plate. ${spoken}`"
  >
    <defs>
      <pattern id="flow-raw" width="9" height="9" patternUnits="userSpaceOnUse">
        <rect width="9" height="9" class="raw" />
        <path d="M0 9 L9 0" class="hatch" />
      </pattern>
      <pattern id="flow-boiled" width="9" height="9" patternUnits="userSpaceOnUse">
        <rect width="9" height="9" class="boiled" />
        <circle cx="4.500" cy="4.500" r="1.600" class="dot" />
      </pattern>
    </defs>
    <g transform="translate(0 24)">
      <path class="bowl" :d="`M8 ${height / 2 - 26} h76 q0 44 -38 44 q-38 0 -38 -44z`" />
      <text x="46" :y="height / 2 + 38" text-anchor="middle">{{ Math.round(batchG) }} g</text>
      <g v-for="b in found" :key="b.name">
        <path
          class="thread"
          :d="path(b.y, b.height)"
          :stroke-width="Math.max(3, b.height * 0.55)"
        />
        <rect
          :x="BOWL + 128"
          :y="b.y"
          :width="b.end === 'plate' || b.end === 'stopped' ? MIDDLE - BOWL - 128 : 190"
          :height="b.height"
          :fill="b.raw ? 'url(#flow-raw)' : b.boiled ? 'url(#flow-boiled)' : 'var(--kettle-hands)'"
        />
        <template v-if="b.end !== 'stays'">
          <rect
            :x="MIDDLE"
            :y="b.y"
            :width="b.end === 'stopped' ? 70 : PLATE - MIDDLE - 30"
            :height="b.height"
            :fill="
              b.boiled ? 'url(#flow-boiled)' : b.raw ? 'url(#flow-raw)' : 'var(--kettle-hands)'
            "
          />
        </template>
        <path
          v-if="b.end === 'stopped'"
          class="bar"
          :d="`M${MIDDLE + 76} ${b.y - 6} v${b.height + 12} M${MIDDLE + 84} ${b.y - 6} v${b.height + 12}`"
        />
        <text :x="BOWL + 138" :y="b.y - 5" class="what">
          <tspan class="strong">{{ b.name }}</tspan>
          {{ Math.round(b.mass_g) }} g
        </text>
        <text
          :x="MIDDLE + (b.end === 'stopped' ? 98 : b.end === 'stays' ? -50 : 8)"
          :y="b.end === 'plate' ? b.y - 5 : b.y + b.height / 2 + 5"
          class="what"
        >
          {{ b.raw && b.boiled ? 'boiled' : b.contact
          }}{{
            b.end === 'stays'
              ? ', stays away from the plate'
              : b.end === 'stopped'
                ? ', stopped'
                : ''
          }}
        </text>
      </g>
      <g :transform="`translate(${PLATE - 24} ${height / 2 - 30})`">
        <ellipse cx="56" cy="30" rx="54" ry="24" class="plate" />
        <ellipse cx="56" cy="28" rx="36" ry="14" class="plate" />
        <text x="56" y="76" text-anchor="middle">{{ Math.round(ledger.served_g) }} g</text>
      </g>
    </g>
  </svg>
  <!-- On a phone the drawing's words are too small to read: a plain list says the same. -->
  <ul class="plain figure" aria-hidden="true">
    <li v-for="t in told" :key="t">{{ t }}</li>
  </ul>
</template>

<style scoped>
.plain {
  display: none;
  margin: 8px 0 0;
  padding-left: 20px;
}
@media (max-width: 640px) {
  .plain {
    display: block;
  }
  .flow text {
    display: none;
  }
}
.flow {
  width: 100%;
  max-width: 860px;
  font-family: var(--kettle-text);
}
text {
  fill: var(--kettle-ink);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
.strong {
  font-weight: 700;
}
.bowl {
  fill: var(--kettle-enamel-soft);
}
.plate {
  fill: var(--kettle-sheet);
  stroke: var(--kettle-enamel-soft);
  stroke-width: 3;
}
.thread {
  fill: none;
  stroke: var(--kettle-machine);
}
.raw {
  fill: var(--kettle-stop-soft);
}
.hatch {
  stroke: var(--kettle-stop);
  stroke-width: 2;
}
.boiled {
  fill: var(--kettle-careful-soft);
}
.dot {
  fill: var(--kettle-careful);
}
.bar {
  stroke: var(--kettle-stop);
  stroke-width: 4;
}
</style>
