<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Live } from '@/api/client'
import { urgency } from './alarms'
import { mainClock } from './clock'
import { useLive } from './useLive'

/** The strip that follows into every room: each cook under way, what it wants, and its clock. */
const live = useLive()
const route = useRoute()
const here = computed(() => (route.name === 'stove' ? Number(route.params.id) : undefined))
/** The page of all of them shows them itself. */
const all = computed(() => route.name === 'stove' && !route.params.id)
const shown = computed(() =>
  all.value ? [] : live.underWay.filter((cook) => cook.id !== here.value),
)
const step = (cook: Live) => cook.steps.find((s) => s.key === cook.current)
const level = (cook: Live) => urgency(cook, live.now)
const says = (cook: Live) => (cook.current ? cook.says : 'On the table. How was it?')
</script>

<template>
  <nav v-if="shown.length" class="live no-print" aria-label="On the stove">
    <RouterLink
      v-for="cook in shown"
      :key="cook.id"
      :to="`/stove/${cook.id}`"
      class="cook"
      :class="level(cook)"
      :data-test="`live-${cook.id}`"
    >
      <b class="figure">{{ mainClock(cook, step(cook), live.now) }}</b>
      <span class="says">{{ says(cook) }}</span>
      <span class="title">{{ cook.rehearsal ? `Rehearsal: ${cook.title}` : cook.title }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.live {
  background: var(--kettle-enamel-deep);
  color: #f6f2e7;
}
.cook {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  min-height: 48px;
  padding: 4px 24px;
  color: inherit;
  text-decoration: none;
  border-top: 1px solid rgb(255 255 255 / 14%);
}
.cook b {
  font: 700 1.35rem var(--kettle-display);
  min-width: 4.2ch;
}
.says,
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.title {
  color: #dfe6ee;
  max-width: 22ch;
}
.closer {
  background: var(--kettle-near);
}
.full,
.out {
  background: #7a1608;
  font-weight: 700;
}
@media (max-width: 640px) {
  .cook {
    padding: 4px 14px;
    gap: 10px;
    grid-template-columns: auto minmax(0, 1fr);
  }
  .title {
    display: none;
  }
}
</style>
