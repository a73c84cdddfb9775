import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import {
  api,
  fetched,
  type Advice,
  type Dish,
  type Explorer,
  type Forecast,
  type Problem,
} from '@/api/client'
import { useLast } from '@/shared/composables/useLast'

const SOON_MS = 250
const AGAIN_MS = 15_000
const kept = {
  staleTime: Infinity,
  retry: false,
  // A server that was away is asked again.
  refetchInterval: ({ state }: { state: { error: Problem | null } }) =>
    state.error?.status === 0 ? AGAIN_MS : (false as const),
}

/** The map, the advice and a second strip beside the first, asked when the dish rests for a moment. */
export function useWhy(dish: () => Dish, sides: (finish: string) => number) {
  const besideKey = ref('')
  // None of them depends on when it is eaten.
  const asked = refDebounced(
    computed(() => JSON.stringify({ ...dish(), serve_at: null })),
    SOON_MS,
  )
  const body = () => JSON.parse(asked.value) as Dish

  const map = useQuery<Explorer, Problem>({
    queryKey: ['explorer', asked],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/explorer', { body: body(), signal })),
    ...kept,
  })
  const found = useQuery<Advice, Problem>({
    queryKey: ['advice', asked],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/advice', { body: body(), signal })),
    ...kept,
  })

  /** The same food with another sauce or appliance: "sauce:plum-tea" or "finish:air_fryer". */
  function other(): Dish {
    const [field, value] = besideKey.value.split(':') as ['sauce' | 'finish', string]
    const changed: Dish = { ...body(), [field]: value }
    if (field === 'sauce') changed.coats = body().coats || 1
    if (field === 'finish' && sides(value) > 1) changed.flips_min = []
    return changed
  }
  const second = useQuery<Forecast, Problem>({
    queryKey: ['beside', asked, besideKey],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/forecasts', { body: other(), signal })),
    enabled: computed(() => besideKey.value !== ''),
    ...kept,
  })

  return {
    explorer: useLast(map.data),
    advice: useLast(found.data),
    beside: computed(() => (besideKey.value ? second.data.value?.glaze : undefined)),
    besideKey,
    problem: computed(() => map.error.value ?? undefined),
    waiting: computed(() => map.isFetching.value || found.isFetching.value),
  }
}
