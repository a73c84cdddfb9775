<script setup lang="ts">
/** What a probe in the food reads, and when it will read what is waited for. */
import { computed } from 'vue'
import type { Live } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { clock } from '@/shared/format/time'
import { temperature } from '@/shared/format/units'

const props = defineProps<{ probe: NonNullable<Live['probe']> }>()
const { degrees } = useUnits()
const shown = (celsius: number) => temperature(celsius, degrees.value)
const when = computed(() => {
  const { probe } = props
  if (probe.silent) return `Nothing from it since ${clock(probe.taken_at)}`
  if (probe.loose) return 'Is it loose? The food cannot be that'
  if (probe.target_c == null) return probe.site
  if (probe.temp_c >= probe.target_c) return `${shown(probe.target_c)} wanted: it is there`
  if (!probe.ready) return `${shown(probe.target_c)} wanted, reckoning…`
  if (!probe.at) return `${shown(probe.target_c)} wanted: not by this heat`
  return `${shown(probe.target_c)} about ${clock(probe.at)}`
})
const spread = computed(() => {
  const { probe } = props
  const told = probe.at && !probe.silent && !probe.loose && probe.temp_c < (probe.target_c ?? 0)
  if (!told || !probe.low_at || !probe.high_at) return ''
  return `${clock(probe.low_at)} to ${clock(probe.high_at)}`
})
</script>

<template>
  <p class="probe figure" :class="{ doubt: probe.silent || probe.loose }" data-test="probe">
    <b>{{ shown(probe.temp_c) }}</b>
    <span>{{ when }}</span>
    <span v-if="spread" class="spread">({{ spread }})</span>
  </p>
</template>

<style scoped>
.probe {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 10px;
  font-size: 1.05rem;
  line-height: 1.2;
}
.probe b {
  font: 700 1.9rem/1.1 var(--kettle-display);
}
.doubt {
  color: var(--kettle-warming);
}
@media (max-width: 860px) {
  .probe {
    font-size: 0.9rem;
  }
  .spread {
    display: none;
  }
  .probe b {
    font-size: 1.3rem;
  }
}
</style>
