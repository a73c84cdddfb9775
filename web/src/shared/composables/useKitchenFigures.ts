import { computed } from 'vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, fetched, type Kitchen, type Problem } from '@/api/client'
import { useUnits } from './useUnits'

const KEY = ['kitchen']
const AGAIN_MS = 15_000
/** What was learnt tonight counts in full tonight, and in part on another evening. */
const FRESH_MS = 600_000

/** Units chosen on one device hold on a new one, until that one chooses for itself. */
function adopt({ settings }: Kitchen) {
  const { kitchen: measures, degrees } = useUnits()
  if (localStorage.getItem('kettle-units') === null) measures.value = settings.measures ?? 'metric'
  if (localStorage.getItem('kettle-degrees') === null) degrees.value = settings.temperature ?? 'C'
}

/** What is kept of this kitchen: asked once for all pages, and again after a change. */
export function useKitchenFigures() {
  const client = useQueryClient()
  const query = useQuery<Kitchen, Problem>({
    queryKey: KEY,
    queryFn: async () => {
      const first = client.getQueryData(KEY) === undefined
      const kitchen = await fetched(api.GET('/api/v1/kitchen'))
      if (first) adopt(kitchen)
      return kitchen
    },
    staleTime: FRESH_MS,
    retry: false,
    // A server that was away is asked again.
    refetchInterval: ({ state }) => (state.error?.status === 0 ? AGAIN_MS : false),
  })

  /** Wait until it is known; `again` reads it anew. */
  async function load(again = false) {
    if (again || query.data.value === undefined) await query.refetch({ cancelRefetch: false })
  }

  /** What plans are cooked in, as far as it is kept: a question about a plan is another where it is. */
  const here = computed(() => query.data.value?.for_plans)

  return { known: query.data, here, problem: query.error, load }
}
