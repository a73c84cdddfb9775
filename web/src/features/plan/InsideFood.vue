<script setup lang="ts">
import { ref } from 'vue'
import type { Forecast } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { temperature } from '@/shared/format/units'
import { duration } from '@/shared/format/time'
import TracesChart from './TracesChart.vue'

defineProps<{ forecast: Forecast }>()
const { degrees } = useUnits()
const open = ref(false)
</script>

<template>
  <section>
    <h2>Inside the food</h2>
    <dl class="figure">
      <dt>Timer</dt>
      <dd>{{ duration(forecast.timer_s) }} at {{ temperature(forecast.target_c, degrees) }}</dd>
      <dt>Tender enough</dt>
      <dd>
        {{ Math.round(forecast.tenderness.enough * 100) }} % likely
        <small
          >cook value {{ Math.round(forecast.tenderness.likely) }}, how tender; wanted
          {{ Math.round(forecast.tenderness.target) }}</small
        >
      </dd>
      <dt>Middle reaches</dt>
      <dd>
        {{ temperature(forecast.safety.core_likely_c, degrees) }}
        <small>an expectation, not a reading</small>
      </dd>
      <template v-if="(forecast.lost_share ?? 0) > 0.02"
        ><dt>Leaves as steam</dt>
        <dd>
          {{ Math.round((forecast.lost_share ?? 0) * 100) }} % of its weight
          <small>open heat dries as it makes tender</small>
        </dd></template
      >
      <template v-if="forecast.fill"
        ><dt>Liquid</dt>
        <dd>
          {{ forecast.liquid_l }} L
          <small
            >{{ forecast.fill.liquid_after_l.toFixed(2) }} L with the juices;
            {{ Math.round(forecast.fill.share * 100) }} % full, line at
            {{ Math.round(forecast.fill.line * 100) }} %</small
          >
        </dd></template
      >
      <template v-if="forecast.sauce_g"
        ><dt>Glaze needed</dt>
        <dd>{{ forecast.sauce_g }} g <small>for all coats, both sides</small></dd></template
      >
    </dl>
    <el-button class="plain-button no-print" :aria-expanded="open" @click="open = !open">
      {{ open ? 'Hide' : 'Show' }} the heat going in
    </el-button>
    <TracesChart v-if="open" :forecast="forecast" />
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 20px;
  margin: 10px 0 14px;
}
dt {
  color: var(--kettle-ink-soft);
}
dd {
  margin: 0;
  font-weight: 700;
}
small {
  display: block;
  font-weight: 400;
  color: var(--kettle-ink-soft);
}
</style>
