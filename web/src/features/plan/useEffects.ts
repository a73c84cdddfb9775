import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Dish, type Effect, type Problem } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'

/** What each assumed figure is worth on a dish. Asked anew only when `mark` changes: it takes many forecasts. */
export function useEffects(dish: () => Dish | null, mark: () => string) {
  const { known, inKitchen } = useKitchenFigures()
  const { data } = useQuery<Effect[], Problem>({
    queryKey: ['effects', computed(mark)],
    queryFn: async ({ signal }) => {
      const body = inKitchen(dish()!)
      const answer = await fetched(api.POST('/api/v1/forecasts/effects', { body, signal }))
      return answer.effects
    },
    enabled: computed(() => known.value !== undefined && dish() !== null),
    staleTime: Infinity,
    retry: false,
  })
  const last = useLast(data)
  return computed(() => last.value ?? [])
}
