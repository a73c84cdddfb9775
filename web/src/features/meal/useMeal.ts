import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { refDebounced, useDebounceFn, useIntervalFn, useStorage } from '@vueuse/core'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import {
  api,
  ask,
  fetched,
  type Meal,
  type MealChoices,
  type MealRepair,
  type Problem,
  type Schedule,
} from '@/api/client'
import { useLast } from '@/shared/composables/useLast'

const SOON_MS = 200
const KEEP_MS = 700
const AGAIN_MS = 15_000

const json = {
  read: (text: string) => JSON.parse(text) as Meal | null,
  write: (value: Meal | null) => JSON.stringify(value),
}
const number = { read: (text: string) => Number(text) || null, write: String }

/** The meal being planned; it outlives the page. */
export const useMealDraft = defineStore('meal', () => {
  const meal = useStorage<Meal | null>('kettle-meal', null, localStorage, { serializer: json })
  const id = useStorage<number | null>('kettle-meal-id', null, localStorage, { serializer: number })
  const version = useStorage<number | null>('kettle-meal-version', null, localStorage, {
    serializer: number,
  })
  /** Another with each begin, so that a late answer is not taken for this one. */
  const sitting = ref(0)
  function begin(next: Meal | null, as: number | null = null, at: number | null = null) {
    sitting.value += 1
    meal.value = next
    id.value = as
    version.value = at
  }
  return { meal, id, version, sitting, begin }
})

export function useMealChoices() {
  return useQuery<MealChoices, Problem>({
    queryKey: ['meal-choices'],
    queryFn: () => fetched(api.GET('/api/v1/meal-choices')),
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (state.data ? false : AGAIN_MS),
  })
}

/** The meal that is open, its plan, and keeping it. */
export function useMeal(route: () => number | undefined) {
  const client = useQueryClient()
  const draft = useMealDraft()
  const changed = ref(false)
  const missing = ref<Problem>()
  const unkept = ref<Problem>()
  let last: Promise<unknown> = Promise.resolve()

  async function open(again = false) {
    const wanted = route() ?? (again ? draft.id : undefined)
    missing.value = undefined
    if (!wanted || (wanted === draft.id && !again)) return
    const { sitting } = draft
    const { data, problem } = await ask(() =>
      api.GET('/api/v1/meals/{id}', { params: { path: { id: wanted } } }),
    )
    if (draft.sitting !== sitting) return
    missing.value = problem
    changed.value = false
    if (data) draft.begin(data.meal, data.id, data.version)
  }
  onMounted(() => void open())
  watch(route, () => void open())

  /** One save after the other; what was changed elsewhere is told, and not written over. */
  const keep = () => (last = last.then(keepNow))
  /** Whether there is anything to keep: what was only begun is no meal yet. */
  const empty = (meal: Meal) => !meal.name && !meal.dishes.length && !meal.sides?.length
  async function keepNow() {
    const { meal, id, sitting } = draft
    if (!meal || changed.value || (!id && empty(meal))) return
    const seen = draft.version ? { 'If-Match': `"${draft.version}"` } : {}
    const body = { meal }
    const { data, problem } = await ask(() =>
      id
        ? api.PUT('/api/v1/meals/{id}', { params: { path: { id }, header: seen }, body })
        : api.POST('/api/v1/meals', { body }),
    )
    if (draft.sitting !== sitting) return
    if (data) [draft.id, draft.version] = [data.id, data.version]
    else if (problem?.status === 404) [draft.id, draft.version] = [null, null]
    changed.value = problem?.status === 412
    unkept.value = problem && ![404, 412].includes(problem.status) ? problem : undefined
    if (problem?.status === 404) await keepNow()
    void client.invalidateQueries({ queryKey: ['meals'] })
  }
  const soon = useDebounceFn(keep, KEEP_MS)
  // A server that was away is asked again.
  useIntervalFn(() => {
    if (unkept.value?.status === 0) void keep()
  }, AGAIN_MS)
  /** Kept as it is now; false where that is not so, and is told. */
  async function settled() {
    await keep()
    return !changed.value && !unkept.value
  }

  /** What was there before something was taken off the table. */
  const before = shallowRef<{ meal: Meal; says: string }>()
  function take(id: string, name: string) {
    const meal = draft.meal!
    edit((next) => {
      next.dishes = next.dishes.filter((one) => one.id !== id)
      next.sides = (next.sides ?? []).filter((one) => one.id !== id)
    })
    before.value = { meal, says: `“${name}” is off the table.` }
  }
  function undo() {
    draft.meal = before.value!.meal
    before.value = undefined
    void soon()
  }

  function edit(change: (next: Meal) => void) {
    before.value = undefined
    if (!draft.meal) return
    const next = JSON.parse(JSON.stringify(draft.meal)) as Meal
    change(next)
    draft.meal = next
    void soon()
  }
  /** A repair is one change of the meal. */
  function mend(repair: MealRepair) {
    edit((next) => {
      if (repair.serve_at) next.serve_at = repair.serve_at
      if (repair.hands) next.hands = repair.hands
      for (const one of next.dishes) {
        const dish = repair.dishes?.[one.id]
        if (dish) Object.assign(one, { template: null, plan_id: null, dish })
      }
    })
  }
  async function keepMine() {
    draft.version = null
    changed.value = false
    await keep()
  }

  const body = computed(() => {
    const { meal } = draft
    const some = (meal?.dishes.length ?? 0) + (meal?.sides?.length ?? 0) > 0
    return meal && some ? JSON.stringify(meal) : ''
  })
  const asked = refDebounced(body, SOON_MS)
  const ready = computed(() => Boolean(asked.value) && asked.value === body.value)
  const planning = (first: boolean, enabled: () => boolean) =>
    useQuery<Schedule, Problem>({
      queryKey: ['schedule', asked, first],
      queryFn: ({ signal }) =>
        fetched(
          api.POST('/api/v1/schedules', {
            params: { query: { effort: first ? 'first' : 'full' } },
            body: JSON.parse(asked.value) as Meal,
            signal,
          }),
        ),
      enabled: computed(enabled),
      staleTime: AGAIN_MS,
      retry: false,
      refetchOnWindowFocus: false,
    })
  /** What is found first stands there until there is a better one. */
  const quick = planning(true, () => ready.value)
  const query = planning(false, () => ready.value && quick.isFetched.value)
  const newest = computed(() => query.data.value ?? quick.data.value)
  // What was planned for another meal is nothing of this one.
  const plan = useLast(newest)
  const planned = computed(() => (body.value ? plan.value : undefined))
  watch(
    () => draft.sitting,
    () => (plan.value = before.value = undefined),
  )
  return {
    draft,
    edit,
    mend,
    take,
    taken: before,
    undo,
    keeping: { changed, missing, unkept, takeTheirs: () => open(true), keepMine, keep, settled },
    plan: planned,
    problem: computed(() => query.error.value ?? undefined),
    thinking: computed(
      () =>
        Boolean(body.value) &&
        (quick.isFetching.value || query.isFetching.value || asked.value !== body.value),
    ),
    refresh: () => query.refetch(),
    stop: () => client.cancelQueries({ queryKey: ['schedule'] }),
  }
}
