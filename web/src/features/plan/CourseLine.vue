<script setup lang="ts">
import { computed } from 'vue'
import type { ChainForecast } from '@/api/client'
import { clock } from '@/shared/format/time'
import TempLine from '@/shared/ui/TempLine.vue'
import { course, crust, momentWords, strips, tender } from './course'

const props = defineProps<{ forecast: ChainForecast }>()
const traces = computed(() => course(props.forecast))
const bite = computed(() => tender(props.forecast))
const crisp = computed(() => crust(props.forecast))
const fires = computed(() => strips(props.forecast))
const says = computed(() => momentWords(props.forecast))
const ends = computed<[string, string]>(() => [
  clock(props.forecast.start_at),
  clock(props.forecast.serve_at),
])
</script>

<template>
  <section>
    <h2>How warm, how tender and how crisp it is</h2>
    <TempLine
      :traces="traces"
      :says="says"
      :ends="ends"
      :tender="bite"
      :crust="crisp"
      :crackles="forecast.crackles_mm"
      :strips="fires"
      label="Temperature, tenderness and crust of the food along the cook"
    />
  </section>
</template>

<style scoped>
section {
  margin-top: 26px;
}
h2 {
  font-size: 1.3rem;
  margin-bottom: 6px;
}
</style>
