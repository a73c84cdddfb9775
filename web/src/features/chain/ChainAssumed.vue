<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import {
  api,
  fetched,
  type Chain,
  type ChainForecast,
  type Choices,
  type Effect,
  type Problem,
} from '@/api/client'
import AssumedList from '@/features/plan/AssumedList.vue'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'
import { useChainDraft } from './draft'

/** What is assumed of the kitchen for a chain, and what each figure is worth tonight. */
const props = defineProps<{
  forecast: ChainForecast
  chain: Chain
  choices: Choices
  stale: boolean
}>()
const draft = useChainDraft()
const { known } = useKitchenFigures()
const body = computed(() => JSON.stringify({ ...props.chain, serve_at: null, name: '' }))
const { data } = useQuery<Effect[], Problem>({
  queryKey: ['chain-effects', body],
  queryFn: async ({ signal }) => {
    const asks = JSON.parse(body.value) as Chain
    const answer = await fetched(
      api.POST('/api/v1/chain-forecasts/effects', { body: asks, signal }),
    )
    return answer.effects
  },
  enabled: computed(() => !props.stale),
  staleTime: Infinity,
  retry: false,
})
const effects = useLast(data)
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
    :effects="effects ?? []"
    :kitchen="known"
    :seen="seen"
    @put="put"
  />
</template>
