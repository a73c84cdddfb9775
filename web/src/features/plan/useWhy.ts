import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import {
  api,
  fetched,
  type Advice,
  type Chain,
  type ChainForecast,
  type Explorer,
  type Problem,
} from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'
import { otherFire } from './otherFire'

const SOON_MS = 250
const AGAIN_MS = 15_000
const kept = {
  staleTime: Infinity,
  retry: false,
  // A server that was away is asked again.
  refetchInterval: ({ state }: { state: { error: Problem | null } }) =>
    state.error?.status === 0 ? AGAIN_MS : (false as const),
}

/** The map of one fire, its advice, and a second strip beside the first; asked when the plan rests
 * for a moment. */
export function useWhy(chain: () => Chain, stage: () => string) {
  const { here } = useKitchenFigures()
  const besideKey = ref('')
  // None of them depends on when it is eaten.
  const plan = computed(() => JSON.stringify({ ...chain(), serve_at: null, name: '' }))
  const asked = refDebounced(plan, SOON_MS)
  const held = () => JSON.parse(asked.value) as Chain
  const body = () => ({ chain: held(), stage: stage() })

  const map = useQuery<Explorer, Problem>({
    queryKey: ['explorer', here, asked, computed(stage)],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/explorer', { body: body(), signal })),
    ...kept,
  })
  const found = useQuery<Advice, Problem>({
    queryKey: ['advice', here, asked, computed(stage)],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/advice', { body: body(), signal })),
    ...kept,
  })
  const second = useQuery<ChainForecast, Problem>({
    queryKey: ['beside', here, asked, computed(stage), besideKey],
    queryFn: ({ signal }) => {
      const other = otherFire(held(), stage(), besideKey.value)
      return fetched(api.POST('/api/v1/forecasts', { body: other, signal }))
    },
    enabled: computed(() => besideKey.value !== ''),
    ...kept,
  })
  const beside = computed(() => {
    const fires = besideKey.value ? second.data.value?.fires : undefined
    return fires?.find((fire) => fire.stage === stage())?.glaze
  })

  return {
    explorer: useLast(map.data),
    advice: useLast(found.data),
    beside,
    besideKey,
    problem: computed(() => map.error.value ?? second.error.value ?? undefined),
    waiting: computed(() => map.isFetching.value || found.isFetching.value),
    /** The advice is of the plan as it stands: its changes are of no other. */
    fresh: computed(() => asked.value === plan.value && found.data.value !== undefined),
  }
}
