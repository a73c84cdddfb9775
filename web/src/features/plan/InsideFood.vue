<script setup lang="ts">
import type { ChainForecast } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { duration } from '@/shared/format/time'
import { temperature } from '@/shared/format/units'
import { capital } from '@/shared/format/words'

/** What each slow heat does, how tender and how hot it comes out, and what sauce it takes. */
defineProps<{ forecast: ChainForecast }>()
const { degrees } = useUnits()
const percent = (share: number) => `${Math.round(share * 100)} %`
</script>

<template>
  <section>
    <h2>Inside the food</h2>
    <dl class="figure">
      <template v-for="slow in forecast.slow_heats" :key="slow.stage">
        <dt>{{ capital(slow.name) }}</dt>
        <dd>
          {{ duration(slow.timer_s) }} at {{ temperature(slow.target_c, degrees) }}
          <small v-if="slow.liquid_l !== null">
            {{ slow.liquid_l }} L of liquid<template v-if="slow.fill"
              >, {{ slow.fill.liquid_after_l.toFixed(2) }} L with the juices;
              {{ percent(slow.fill.share) }} full, its line at
              {{ percent(slow.fill.line) }}</template
            >
          </small>
          <small v-if="slow.lost_share > 0.02">
            {{ percent(slow.lost_share) }} of its weight leaves as steam
          </small>
        </dd>
      </template>
      <template v-if="forecast.tenderness">
        <dt>Tender enough</dt>
        <dd>
          {{ percent(forecast.tenderness.enough) }} likely
          <small
            >cook value {{ Math.round(forecast.tenderness.likely) }}, how tender; wanted
            {{ Math.round(forecast.tenderness.target) }}</small
          >
        </dd>
      </template>
      <dt>Middle reaches</dt>
      <dd>
        {{ temperature(forecast.inside.core_likely_c, degrees) }}
        <small>an expectation, not a reading</small>
      </dd>
      <template v-for="layer in forecast.layers" :key="layer.layer">
        <dt>{{ capital(layer.name) }}</dt>
        <dd>{{ Math.round(layer.grams) }} g <small>on the food, in all</small></dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
section {
  margin-top: 30px;
}
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
