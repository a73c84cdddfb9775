import { computed, onMounted, ref, watch } from 'vue'
import { refDebounced } from '@vueuse/core'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import {
  api,
  fetched,
  type Chain,
  type ChainForecast,
  type Problem,
  type Template,
} from '@/api/client'
import { useKept } from '@/shared/composables/useKept'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'
import { useChoices } from './useChoices'
import { useDraft } from './draft'
import { askPlansAgain } from './usePlans'

const SOON_MS = 150
const AGAIN_MS = 15_000

/** Chains to begin with; asked once. */
export function useTemplates() {
  return useQuery<Template[], Problem>({
    queryKey: ['templates'],
    queryFn: async () => (await fetched(api.GET('/api/v1/templates'))).items,
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (state.data ? false : AGAIN_MS),
  })
}

/** The chain being planned, its forecast, and keeping it. */
export function usePlan(id: () => number | undefined) {
  const client = useQueryClient()
  const draft = useDraft()
  const keeping = useKept(draft, () => draft.chain)
  const choices = useChoices()
  const { load, here } = useKitchenFigures()
  const opened = ref(false)
  async function open() {
    const number = id() ?? draft.planId
    await Promise.all([load(true), number ? keeping.open(number) : undefined])
    opened.value = true
  }
  onMounted(open)
  watch(id, (next) => next !== undefined && void open())
  /** What was only looked at is not kept. */
  const worth = () => Boolean(draft.planId) || draft.canUndo
  watch(
    () => draft.chain,
    (now, before) => opened.value && now && before && worth() && keeping.soon(),
  )
  /** Back to the shelf, with the last change kept; what is kept there needs no other way back. */
  async function leave() {
    const kept = worth() ? keeping.keep() : false
    draft.leave()
    if (!(await kept)) return
    draft.left = null
    await askPlansAgain(client)
  }
  const body = computed(() => (draft.chain ? JSON.stringify(draft.chain) : ''))
  const asked = refDebounced(body, SOON_MS)
  const query = useQuery<ChainForecast, Problem>({
    queryKey: ['chain', here, asked],
    queryFn: ({ signal }) =>
      fetched(api.POST('/api/v1/forecasts', { body: JSON.parse(asked.value) as Chain, signal })),
    enabled: computed(() => opened.value && Boolean(asked.value) && asked.value === body.value),
    staleTime: AGAIN_MS,
    retry: false,
    refetchInterval: ({ state }) =>
      state.error?.status === 0 || !draft.chain?.serve_at ? AGAIN_MS : false,
  })
  return {
    draft,
    choices: choices.data,
    forecast: useLast(query.data),
    problem: computed(() => query.error.value ?? choices.error.value ?? undefined),
    keeping,
    /** Why the last change is only here; what went back to how it was read is no change. */
    unkept: computed(() => (worth() ? keeping.unkept.value : undefined)),
    leave,
    stale: computed(
      () =>
        Boolean(query.error.value) || asked.value !== body.value || query.data.value === undefined,
    ),
    refresh: () => query.refetch(),
  }
}
