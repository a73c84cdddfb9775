import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Chain, type Effect, type Problem } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'

/** What each assumed figure is worth on a plan. It takes many forecasts: asked while `ready`. */
export function useEffects(plan: () => Chain | undefined, ready: () => boolean) {
  const { here } = useKitchenFigures()
  const body = computed(() => {
    const asked = plan()
    return asked ? JSON.stringify({ ...asked, serve_at: null, name: '' }) : ''
  })
  const { data } = useQuery<Effect[], Problem>({
    queryKey: ['effects', here, body],
    queryFn: async ({ signal }) => {
      const asks = JSON.parse(body.value) as Chain
      const answer = await fetched(api.POST('/api/v1/forecasts/effects', { body: asks, signal }))
      return answer.effects
    },
    enabled: computed(() => Boolean(body.value) && ready()),
    staleTime: Infinity,
    retry: false,
  })
  const last = useLast(data)
  return computed(() => last.value ?? [])
}
