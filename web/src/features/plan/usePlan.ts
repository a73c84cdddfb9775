import { computed, ref, shallowRef, watch } from 'vue'
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import {
  api,
  ask,
  OFFLINE,
  type Choices,
  type Dish,
  type Forecast,
  type Problem,
} from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useDraft } from './draft'

let known: Promise<Choices | undefined> | undefined

/** Cuts, sauces and ranges; asked once. */
export async function loadChoices(): Promise<Choices | undefined> {
  known ??= ask(() => api.GET('/api/v1/choices')).then(({ data }) => data)
  const found = await known
  if (!found) known = undefined
  return found
}

/** The plan being edited: its dish, its forecast, what is wrong with it, and keeping it. */
export function usePlan() {
  const draft = useDraft()
  const { known, load: loadKitchen, inKitchen } = useKitchenFigures()
  const choices = shallowRef<Choices>()
  const forecast = shallowRef<Forecast>()
  const problem = ref<Problem>()
  const waiting = ref(false)
  let latest = 0

  async function refresh() {
    const dish = draft.dish
    if (!dish) return
    const turn = ++latest
    waiting.value = true
    const answer = await ask(() => api.POST('/api/v1/forecasts', { body: inKitchen(dish) }))
    if (turn !== latest) return
    waiting.value = false
    problem.value = answer.problem
    if (answer.data) forecast.value = answer.data
  }

  // One refused entry must not stop the others from being kept: the plan takes any document that parses.
  const keep = useDebounceFn(async () => {
    const dish = draft.dish
    if (!dish || problem.value) return
    const id = draft.planId
    if (id) {
      const { data, problem: missing } = await ask(() =>
        api.PUT('/api/v1/plans/{id}', { params: { path: { id } }, body: { dish } }),
      )
      if (data || missing?.status !== 404) return
    }
    const { data } = await ask(() => api.POST('/api/v1/plans', { body: { dish } }))
    if (data) draft.planId = data.id
  }, 600)

  const soon = useDebounceFn(async () => {
    await refresh()
    await keep()
  }, 60)
  watch(
    () => draft.dish,
    () => void soon(),
    { deep: true },
  )

  async function open(id?: number) {
    const [found] = await Promise.all([loadChoices(), loadKitchen(true)])
    choices.value = found
    if (!choices.value) {
      problem.value = OFFLINE
      return
    }
    if (id && id !== draft.planId) {
      const { data, problem: missing } = await ask(() =>
        api.GET('/api/v1/plans/{id}', { params: { path: { id } } }),
      )
      if (data) draft.begin(data.dish as unknown as Dish, data.id)
      problem.value = missing
    } else if (!draft.dish) {
      const { data } = await ask(() => api.GET('/api/v1/plans'))
      const last = data?.plans[0]
      if (last) draft.begin(last.dish as unknown as Dish, last.id)
    }
    await refresh()
  }

  // "Start now" moves with the clock, and a server that was away is asked again.
  useIntervalFn(() => {
    if (problem.value?.status === 0) void (choices.value ? refresh() : open())
    else if (!draft.dish?.serve_at) void refresh()
  }, 15_000)

  const faults = computed(() => problem.value?.errors ?? [])
  return { draft, known, inKitchen, choices, forecast, problem, faults, waiting, open, refresh }
}
