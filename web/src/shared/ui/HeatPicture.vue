<script setup lang="ts">
/** Our own line drawings of the heats: what holds the food in enamel blue, what heats it in ember. */
defineProps<{ heat: string; size?: number }>()

const OVEN = 'M6 8h52v48H6z'
const FRYER = 'M14 10q0-4 4-4h28q4 0 4 4v42q0 4-4 4H18q-4 0-4-4zM14 32h36M26 44h12'
const POT = 'M14 28v22q0 6 6 6h24q6 0 6-6V28M8 32h6M50 32h6'
const FAN = 'M32 12a7 7 0 1 0 0.1 0M32 19l5-4M32 19l-5-4M32 19v6'
const SHAPES: Record<string, { body: string; heat: string; food: string }> = {
  pressure: {
    body: `${POT}M12 28h40M16 28q0-10 16-10t16 10M32 18v-6`,
    heat: 'M26 8q3-3 0-6M38 8q3-3 0-6',
    food: 'M22 46h20',
  },
  braise: {
    body: `${OVEN}M14 36h36l-3 10q-1 3-4 3H21q-3 0-4-3zM16 36q2-9 16-9t16 9M32 27v-3`,
    heat: 'M14 53h36',
    food: '',
  },
  foil: {
    body: `${OVEN}M14 46l4-12 4 3 5-4 5 4 5-4 5 4 4-3 4 12zM18 34l-4-5M46 34l4-5`,
    heat: 'M14 53h36',
    food: '',
  },
  low_oven: { body: `${OVEN}M10 40h44`, heat: 'M14 52h36', food: 'M20 38q0-10 12-10t12 10z' },
  air_fry: { body: FRYER, heat: FAN, food: '' },
  smoke: {
    body: 'M10 34q0-18 22-18t22 18zM10 34q2 16 22 16t22-16M18 48l-4 10M46 48l4 10',
    heat: 'M26 12q-4-4 0-8M36 12q-4-4 0-8',
    food: 'M22 34q0-7 10-7t10 7',
  },
  bath: {
    body: 'M8 18v34q0 4 4 4h40q4 0 4-4V18M46 8h6v30h-6z',
    heat: 'M10 26q6-4 11 0t11 0t11 0',
    food: 'M20 34h16v14H20z',
  },
  simmer: {
    body: POT,
    heat: 'M24 62h16M26 22a2 2 0 1 0 0.1 0M36 16a2.5 2.5 0 1 0 0.1 0M30 10a1.5 1.5 0 1 0 0.1 0',
    food: 'M18 34q7-4 14 0t14 0',
  },
  slow: {
    body: 'M8 26h48l-4 24q-1 6-7 6H19q-6 0-7-6zM12 26q2-10 20-10t20 10M32 16v-4',
    heat: 'M32 40a5 5 0 1 0 0.1 0M32 45l3-3',
    food: '',
  },
  broiler: {
    body: `${OVEN}M12 46h40`,
    heat: 'M12 14l5 6 5-6 5 6 5-6 5 6 5-6 5 6 5-6M22 26v6M32 26v6M42 26v6',
    food: 'M20 44q0-6 12-6t12 6z',
  },
  air_fryer: { body: FRYER, heat: FAN, food: '' },
  oven: {
    body: `${OVEN}M10 40h44`,
    heat: 'M14 52h36M14 14h36M14 20q-3 6 0 12M50 20q3 6 0 12',
    food: 'M20 38q0-10 12-10t12 10z',
  },
  crisping_lid: {
    body: `${POT}M12 28h40M14 28V16q0-4 4-4h28q4 0 4 4v12`,
    heat: 'M18 18l4 6 4-6 4 6 4-6 4 6 4-6 4 6',
    food: 'M22 46q0-8 10-8t10 8z',
  },
  grill: {
    body: 'M6 34h52M12 34l4 22h32l4-22M18 34v-4M26 34v-4M38 34v-4M46 34v-4',
    heat: 'M22 52q-5-5 0-12q5 7 0 12zM33 52q-5-5 0-12q5 7 0 12zM44 52q-5-5 0-12q5 7 0 12z',
    food: 'M18 28q0-10 14-10t14 10z',
  },
  charcoal: {
    body: 'M6 34h52M10 34q2 22 22 22t22-22',
    heat: 'M22 46a4 4 0 1 0 0.1 0M32 42a4 4 0 1 0 0.1 0M42 46a4 4 0 1 0 0.1 0',
    food: 'M18 28q0-10 14-10t14 10z',
  },
  contact: {
    body: 'M10 22q0-6 6-6h32q6 0 6 6v4H10zM10 44h44v4q0 6-6 6H16q-6 0-6-6zM54 26l4-10',
    heat: 'M14 30h36M14 40h36',
    food: 'M18 33h28v4H18z',
  },
}
</script>

<template>
  <svg
    v-if="SHAPES[heat]"
    :width="size ?? 64"
    :height="size ?? 64"
    viewBox="0 0 64 64"
    aria-hidden="true"
  >
    <path class="food" :d="SHAPES[heat].food" />
    <path class="body" :d="SHAPES[heat].body" />
    <path class="heat" :d="SHAPES[heat].heat" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke-width: 2.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.body {
  stroke: var(--kettle-enamel-soft);
}
.heat {
  stroke: var(--kettle-ember);
}
.food {
  fill: var(--kettle-hands);
  stroke: none;
}
</style>
