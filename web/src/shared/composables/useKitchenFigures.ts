import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, fetched, type Figures, type Kitchen, type Problem } from '@/api/client'
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

  /** A plan in this kitchen: figures that are kept fill what it leaves open itself. */
  function inKitchen<T extends { kitchen?: Figures }>(plan: T): T {
    const kitchen = query.data.value
    if (!kitchen) return plan
    const own = Object.fromEntries(
      Object.entries(plan.kitchen ?? {}).filter(
        ([, value]) => value !== null && value !== undefined,
      ),
    )
    const here = kitchen.for_plans
    // Of what there is one for each job, a plan says only what is its own.
    const machines = { ...here.machines, ...plan.kitchen?.machines }
    const learnt = { ...here.learnt, ...plan.kitchen?.learnt }
    return { ...plan, kitchen: { ...here, ...own, machines, learnt } as Figures }
  }

  return { known: query.data, problem: query.error, load, inKitchen }
}
