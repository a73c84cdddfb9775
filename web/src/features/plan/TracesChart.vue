<script setup lang="ts">
import { computed } from 'vue'
import { useDark } from '@vueuse/core'
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { Forecast } from '@/api/client'
import type { Degrees } from '@/shared/composables/useUnits'

use([LineChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])
const props = defineProps<{ forecast: Forecast; degrees: Degrees }>()
const dark = useDark({ storageKey: 'kettle-theme' })

function shown(celsius: number): number {
  return props.degrees === 'C' ? Math.round(celsius) : Math.round(celsius * 1.8 + 32)
}

const option = computed(() => {
  const { time_s = [], vessel_c = [], centre_c = [] } = props.forecast.traces
  const points = (temps: number[]) =>
    time_s.map((t, i) => [Math.round(t / 6) / 10, shown(temps[i]!)])
  const ink = dark.value ? '#f1ead9' : '#17222e'
  const line = { type: 'line' as const, showSymbol: false }
  return {
    textStyle: { fontFamily: 'Atkinson Hyperlegible', fontSize: 14, color: ink },
    legend: { top: 0, textStyle: { color: ink } },
    grid: { left: 48, right: 16, top: 34, bottom: 44 },
    tooltip: {
      trigger: 'axis' as const,
      valueFormatter: (v: unknown) => `${String(v)} °${props.degrees}`,
    },
    xAxis: {
      type: 'value' as const,
      name: 'minutes in the pot',
      nameLocation: 'middle' as const,
      nameGap: 26,
      axisLabel: { color: ink },
    },
    yAxis: { type: 'value' as const, axisLabel: { formatter: `{value}°`, color: ink } },
    series: [
      {
        ...line,
        name: 'around it',
        data: points(vessel_c),
        lineStyle: { type: 'dashed' as const, color: '#c2470f' },
        itemStyle: { color: '#c2470f' },
      },
      {
        ...line,
        name: 'middle of the food',
        data: points(centre_c),
        lineStyle: { width: 3, color: dark.value ? '#9cbbd9' : '#16324f' },
        itemStyle: { color: dark.value ? '#9cbbd9' : '#16324f' },
      },
    ],
  }
})
</script>

<template>
  <VChart
    class="chart"
    :option="option"
    autoresize
    aria-label="Temperature around the food and in its middle, over minutes in the pot"
  />
</template>

<style scoped>
.chart {
  height: 260px;
  margin-top: 10px;
}
</style>
