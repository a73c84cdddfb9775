<script setup lang="ts">
import { computed } from 'vue'
import type { Chain, ChainForecast, Choices } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import AssumedList from './AssumedList.vue'
import { useDraft } from './draft'
import { useEffects } from './useEffects'

/** What is assumed of the kitchen for a chain, and what each figure is worth tonight. */
const props = defineProps<{
  forecast: ChainForecast
  chain: Chain
  choices: Choices
  stale: boolean
}>()
const draft = useDraft()
const { known } = useKitchenFigures()
const effects = useEffects(
  () => props.chain,
  () => !props.stale,
)
const seen = computed(() =>
  Math.max(
    0,
    ...props.forecast.fires.map((one) => known.value?.learnt[one.glaze.appliance]?.seen ?? 0),
  ),
)

function put(name: string, value: number | string | null) {
  draft.edit((next) => {
    next.kitchen = { ...next.kitchen, [name]: value } as Chain['kitchen']
  })
}
</script>

<template>
  <AssumedList
    :assumed="forecast.assumed"
    :stated="draft.chain?.kitchen"
    :figures="choices.typical"
    :effects="effects"
    :kitchen="known"
    :seen="seen"
    @put="put"
  />
</template>
