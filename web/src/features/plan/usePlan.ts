import { computed, onMounted, ref, watch } from 'vue'
import { refDebounced } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Choices, type Dish, type Forecast, type Problem } from '@/api/client'
import { useLast } from '@/shared/composables/useLast'
import { useKept } from '@/shared/composables/useKept'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useDraft } from './draft'

const SOON_MS = 60
const AGAIN_MS = 15_000

/** Cuts, sauces and ranges; asked once. */
export function useChoices() {
  return useQuery<Choices, Problem>({
    queryKey: ['choices'],
    queryFn: () => fetched(api.GET('/api/v1/choices')),
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (state.data ? false : AGAIN_MS),
  })
}

/** The plan being edited: its dish, its forecast, what is wrong with it, and keeping it. */
export function usePlan(id: () => number | undefined) {
  const draft = useDraft()
  const router = useRouter()
  const { known, load: loadKitchen, inKitchen } = useKitchenFigures()
  const choices = useChoices()
  const keeping = useKept<Dish>(draft, () => draft.dish, 'kettle.dish/1')
  const opened = ref(false)
  const body = computed(() => (draft.dish ? JSON.stringify(inKitchen(draft.dish)) : ''))
  const asked = refDebounced(body, SOON_MS)

  const query = useQuery<Forecast, Problem>({
    queryKey: ['forecast', asked],
    queryFn: ({ signal }) =>
      fetched(api.POST('/api/v1/forecasts', { body: JSON.parse(asked.value) as Dish, signal })),
    enabled: computed(
      () =>
        opened.value &&
        choices.isSuccess.value &&
        Boolean(asked.value) &&
        asked.value === body.value,
    ),
    staleTime: AGAIN_MS,
    retry: false,
    // "Start now" moves with the clock, and a server that was away is asked again.
    refetchInterval: ({ state }) =>
      state.error?.status === 0 || !draft.dish?.serve_at ? AGAIN_MS : false,
  })
  const forecast = useLast(query.data)

  async function open() {
    opened.value = false
    const number = id() ?? draft.planId
    await Promise.all([loadKitchen(true), number ? keeping.open(number) : keeping.openLast()])
    opened.value = true
  }
  onMounted(open)
  watch(id, (next) => next !== undefined && void open())
  watch(keeping.elsewhere, (number) => number && void router.replace(`/steps/${number}`))
  watch(
    () => draft.dish,
    () => opened.value && keeping.soon(),
    { deep: true },
  )

  const problem = computed(
    () => choices.error.value ?? query.error.value ?? keeping.missing.value ?? undefined,
  )
  return {
    draft,
    known,
    inKitchen,
    choices: choices.data,
    forecast,
    problem,
    faults: computed(() => problem.value?.errors ?? []),
    // What stands on the page is of another dish while this one's answer is not there yet.
    stale: computed(
      () =>
        Boolean(query.error.value) || asked.value !== body.value || query.data.value === undefined,
    ),
    opened,
    changed: keeping.changed,
    takeTheirs: keeping.takeTheirs,
    keepMine: keeping.keepMine,
    async refresh() {
      if (!choices.data.value) await choices.refetch()
      await query.refetch()
    },
  }
}
