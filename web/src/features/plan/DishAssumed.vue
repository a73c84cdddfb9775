<script setup lang="ts">
import { computed } from 'vue'
import type { Choices, Dish, Forecast, Kitchen } from '@/api/client'
import AssumedList from './AssumedList.vue'
import { useDraft } from './draft'
import { useEffects } from './useEffects'

/** What is assumed for a dish. */
const props = defineProps<{
  forecast: Forecast
  dish: Dish
  choices: Choices
  kitchen?: Kitchen
}>()
const draft = useDraft()
const effects = useEffects(
  () => props.dish,
  () =>
    [
      ...props.forecast.assumed.map((a) => a.name),
      props.dish.finish,
      props.dish.tenderise,
      props.dish.state,
    ].join(),
)
const seen = computed(() => props.kitchen?.learnt[props.dish.finish ?? 'broiler']?.seen ?? 0)
const put = (name: string, value: number | string | null) =>
  draft.change({ kitchen: { [name]: value } } as unknown as Partial<Dish>)
</script>

<template>
  <AssumedList
    :assumed="forecast.assumed"
    :stated="dish.kitchen"
    :figures="choices.typical"
    :effects="effects"
    :kitchen="kitchen"
    :seen="seen"
    @put="put"
  />
</template>
