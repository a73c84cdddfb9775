import { computed, ref, watch } from 'vue'
import { useStorage } from '@vueuse/core'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import {
  api,
  ask,
  fetched,
  type Answers,
  type Beginning,
  type ChainForecast,
  type Choices,
  type HeatTimes,
  type Problem,
} from '@/api/client'
import { bottled } from '@/features/plan'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'
import { answered, asked, bodyOf, BOTTLE, nextTap, timesBody, type TapKey, type Told } from './taps'

export interface Label {
  name: string
  serving_g: number
  sugars_g: number
  sodium_mg: number
}

const beginning = (body: Answers) => fetched(api.POST('/api/v1/beginnings', { body }))

/** The answers of a newcomer, the chain that they come to, and what it takes. */
export function useTaps(
  choices: () => Choices | undefined,
  take: (key: string) => Promise<{ sauce?: Answers['sauce']; problem?: Problem }>,
) {
  const client = useQueryClient()
  const { load, here } = useKitchenFigures()
  void load()
  const told = useStorage<Told>('kettle-taps', {}, sessionStorage)
  const sauce = useStorage<{ taken: Answers['sauce'] }>(
    'kettle-taps-sauce',
    { taken: null },
    sessionStorage,
  )
  const at = useStorage<TapKey>('kettle-tap', 'cut', sessionStorage)
  const problem = ref<Problem>()
  const busy = ref(false)

  const body = computed(() =>
    choices() && told.value.cut ? bodyOf(told.value, sauce.value.taken, choices()!) : undefined,
  )
  const begun = useQuery<Beginning, Problem>({
    queryKey: ['beginning', body],
    queryFn: () => beginning(body.value!),
    enabled: computed(() => Boolean(body.value)),
    retry: false,
  })
  const start = useLast(begun.data)
  const chain = computed(() => begun.data.value?.chain)
  const forecast = useQuery<ChainForecast, Problem>({
    queryKey: ['beginning', 'forecast', here, chain],
    queryFn: ({ signal }) => fetched(api.POST('/api/v1/forecasts', { body: chain.value!, signal })),
    enabled: computed(() => Boolean(chain.value)),
    retry: false,
  })
  /** The hours of each heat: asked for ahead, so that they are there when the question comes. */
  const timesOf = (of: 'heat' | 'finish', ready: () => boolean) =>
    useQuery<HeatTimes, Problem>({
      queryKey: ['beginning', 'times', of, here, computed(() => timesBody(of, body.value))],
      queryFn: ({ signal }) =>
        fetched(
          api.POST('/api/v1/beginnings/heat-times', { body: timesBody(of, body.value)!, signal }),
        ),
      enabled: computed(() => Boolean(body.value) && ready()),
      retry: false,
      staleTime: Infinity,
    })
  const slow = timesOf('heat', () => told.value.mass !== undefined)
  const fierce = timesOf('finish', () => told.value.heat !== undefined)
  const hours = computed(() => {
    const found = at.value === 'finish' ? fierce.data.value : slow.data.value
    return Object.fromEntries((found?.items ?? []).map((one) => [one.key, one.total_s]))
  })

  const list = computed(() => (choices() ? asked(choices()!, told.value, start.value) : []))
  watch(list, (now) => now.length && !now.includes(at.value) && (at.value = 'cut'))

  /** Take an answer; true when it was the last. What the server refuses stays to be answered. */
  async function answer(text: string): Promise<Beginning | undefined> {
    if (busy.value) return undefined
    busy.value = true
    problem.value = undefined
    try {
      return await settle(at.value, text)
    } finally {
      busy.value = false
    }
  }

  async function settle(key: TapKey, text: string): Promise<Beginning | undefined> {
    const next = answered(told.value, key, text)
    let taken = sauce.value.taken
    if (key === 'sauce' && text && text !== BOTTLE) {
      const found = await take(text)
      problem.value = found.problem
      if (found.problem) return undefined
      taken = found.sauce
    }
    const asks = bodyOf(next, taken, choices()!)
    let found: Beginning
    try {
      const queryKey = ['beginning', asks]
      found = await client.fetchQuery({ queryKey, queryFn: () => beginning(asks), retry: false })
    } catch (wrong) {
      problem.value = wrong as Problem
      return undefined
    }
    told.value = next
    sauce.value = { taken }
    const after = nextTap(asked(choices()!, next, found), next, key)
    if (!after) return found
    at.value = after
    return undefined
  }

  /** A bottle of which only the label is known. */
  async function bottle(label: Label): Promise<Beginning | undefined> {
    const { data, problem: wrong } = await ask(() =>
      api.POST('/api/v1/ingredients/label', { body: label as never }),
    )
    problem.value = wrong
    if (!data) return undefined
    sauce.value = { taken: bottled(data.ingredient) }
    return answer(BOTTLE)
  }

  function forget() {
    told.value = {}
    sauce.value = { taken: null }
    at.value = 'cut'
  }

  return {
    told,
    at,
    list,
    start,
    forecast: useLast(forecast.data),
    thinking: computed(
      () => Boolean(body.value) && (begun.isFetching.value || forecast.isFetching.value),
    ),
    hours,
    problem,
    busy,
    answer,
    bottle,
    forget,
  }
}
