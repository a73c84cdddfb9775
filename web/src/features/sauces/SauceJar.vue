<script setup lang="ts">
import { computed } from 'vue'
import type { Analysis } from '@/api/client'
import { labelPlaces, layers, percent } from './jar'

/** What is in the jar: layers as thick as their share, sugars at the bottom by kind. Patterns and words, not colour alone. */
const props = defineProps<{ analysis: Analysis }>()
const W = 150
const TOP = 34
const H = 236
const found = computed(() =>
  layers(props.analysis.parts).map((l) => ({
    ...l,
    y: TOP + l.from * H,
    height: (l.to - l.from) * H,
  })),
)
const places = computed(() =>
  labelPlaces(
    found.value.map((l) => l.y + l.height / 2 + 5),
    21,
    TOP + H,
  ),
)
const spoken = computed(() => found.value.map((l) => `${l.word} ${percent(l.share)}`).join(', '))
</script>

<template>
  <svg class="jar" viewBox="0 0 330 300" role="img" :aria-label="`In the jar: ${spoken}`">
    <defs>
      <clipPath id="jar-inside">
        <path :d="`M6 ${TOP} h${W - 12} v${H - 18} q0 18 -18 18 h${-(W - 48)} q-18 0 -18 -18 z`" />
      </clipPath>
      <pattern id="jar-glucose" width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="1.4" class="mark" />
      </pattern>
      <pattern id="jar-fructose" width="9" height="9" patternUnits="userSpaceOnUse">
        <path d="M0 9 L9 0" class="stroke" />
      </pattern>
      <pattern id="jar-sucrose" width="10" height="10" patternUnits="userSpaceOnUse">
        <rect x="2.5" y="2.500" width="5" height="5" class="stroke none" />
      </pattern>
      <pattern id="jar-water" width="26" height="12" patternUnits="userSpaceOnUse">
        <path d="M0 8 q6.500 -5 13 0 t13 0" class="stroke none faint" />
      </pattern>
    </defs>
    <rect x="22" y="8" :width="W - 44" height="18" rx="5" class="lid" />
    <g clip-path="url(#jar-inside)">
      <template v-for="l in found" :key="l.part">
        <rect x="0" :y="l.y" :width="W" :height="l.height + 0.6" :class="['layer', l.part]" />
        <rect
          v-if="['glucose', 'fructose', 'sucrose', 'water'].includes(l.part)"
          x="0"
          :y="l.y"
          :width="W"
          :height="l.height + 0.6"
          :fill="`url(#jar-${l.part})`"
        />
      </template>
    </g>
    <path
      class="glass"
      :d="`M6 ${TOP - 4} v${H - 14} q0 18 18 18 h${W - 48} q18 0 18 -18 v${-(H - 14)}`"
    />
    <g v-for="(l, i) in found" :key="`t${l.part}`">
      <path class="lead" :d="`M${W - 2} ${l.y + l.height / 2} L${W + 12} ${places[i]! - 5}`" />
      <text :x="W + 18" :y="places[i]">{{ l.word }}</text>
      <text x="326" :y="places[i]" text-anchor="end" class="share">{{ percent(l.share) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.jar {
  width: 100%;
  max-width: 360px;
  display: block;
  font-family: var(--kettle-text);
}
text {
  fill: var(--kettle-ink);
  font-size: 15px;
}
.share {
  font-weight: 700;
  font-variant-numeric: tabular-nums;
}
.glass {
  fill: none;
  stroke: var(--kettle-enamel-soft);
  stroke-width: 4;
  stroke-linecap: round;
}
.lid {
  fill: var(--kettle-enamel-soft);
}
.lead {
  stroke: var(--kettle-ink-soft);
  stroke-width: 1;
}
.stroke {
  stroke: var(--kettle-ink);
  stroke-width: 1.1;
  opacity: 0.55;
}
.none {
  fill: none;
}
.faint {
  opacity: 0.25;
}
.mark {
  fill: var(--kettle-ink);
  opacity: 0.6;
}
.layer {
  stroke: var(--kettle-sheet);
  stroke-width: 1;
}
.water {
  fill: var(--kettle-machine);
}
.fat {
  fill: var(--kettle-careful-soft);
}
.acid {
  fill: var(--kettle-hands);
}
.salt {
  fill: var(--kettle-sheet);
}
.protein {
  fill: var(--kettle-line);
}
.other {
  fill: var(--kettle-paper);
}
.glucose,
.fructose,
.sucrose {
  fill: var(--kettle-ember-soft);
}
</style>
