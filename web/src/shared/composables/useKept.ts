import { ref } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { api, ask, type Chain, type Dish, type Problem } from '@/api/client'

const KEEP_MS = 660

/** What is being edited, and the plan that it is kept as. `sitting` is another with each begin. */
interface Held<T> {
  sitting: number
  planId: number | null
  planVersion: number | null
  begin: (document: T, id?: number | null, version?: number | null) => void
}

/** The plan that one sitting is kept as. */
interface Saved {
  sitting: number
  id: number | null
  version: number | null
}
const saved = (held: Held<never>): Saved => ({
  sitting: held.sitting,
  id: held.planId,
  version: held.planVersion,
})

/** Keeping what is being edited as a plan: each change a moment later, to the version that was
 * read. What was changed elsewhere meanwhile is told, and nothing is written over it. */
export function useKept<T extends Dish | Chain>(
  held: Held<T>,
  current: () => T | null,
  format: 'kettle.dish/1' | 'kettle.dish/2',
) {
  const changed = ref(false)
  const missing = ref<Problem>()

  const path = (id: number) => ({ params: { path: { id } } })
  const begin = (data: { dish: unknown; id: number; version: number }) =>
    held.begin(data.dish as T, data.id, data.version)

  /** Open a plan by its number. */
  async function open(id: number) {
    missing.value = undefined
    changed.value = false
    if (id === held.planId) return
    const { data, problem } = await ask(() => api.GET('/api/v1/plans/{id}', path(id)))
    if (data) begin(data)
    missing.value = problem
  }

  /** Open the plan that was changed last, where nothing is being edited. */
  async function openLast() {
    if (current()) return
    const query = { limit: 1, format }
    const { data } = await ask(() => api.GET('/api/v1/plans', { params: { query } }))
    if (data?.plans[0]) begin(data.plans[0])
  }

  /** One save after the other, so that a slow first one is not made twice. Each takes along what
   * stood when it was asked for, even if something else is begun meanwhile. */
  let last: Promise<boolean> = Promise.resolve(true)
  let made: Saved = saved(held)
  function keep(): Promise<boolean> {
    const dish = current()
    if (!dish || changed.value) return Promise.resolve(false)
    const now = saved(held)
    last = last.then(() => keepNow(dish, made.sitting === now.sitting && made.id ? made : now))
    return last
  }

  /** Save it where it still is as it was read, or anew where it is not there; whether it is done. */
  async function keepNow(dish: T, as: Saved): Promise<boolean> {
    if (as.id) {
      const seen = as.version ? { 'If-Match': `"${as.version}"` } : {}
      const params = { path: { id: as.id }, header: seen }
      const { data, problem } = await ask(() =>
        api.PUT('/api/v1/plans/{id}', { params, body: { dish } }),
      )
      if (data) note(as.sitting, data)
      if (held.sitting === as.sitting) changed.value = problem?.status === 412
      if (problem?.status !== 404) return !problem
    }
    const { data } = await ask(() => api.POST('/api/v1/plans', { body: { dish } }))
    if (data) note(as.sitting, data)
    return Boolean(data)
  }

  function note(sitting: number, data: { id: number; version: number }) {
    made = { sitting, id: data.id, version: data.version }
    if (held.sitting === sitting) [held.planId, held.planVersion] = [data.id, data.version]
  }

  /** Let the plan go on as it was changed elsewhere. */
  async function takeTheirs() {
    const { data } = await ask(() => api.GET('/api/v1/plans/{id}', path(held.planId!)))
    if (data) begin(data)
    changed.value = false
  }

  /** Keep this one, over what was changed elsewhere. */
  async function keepMine() {
    held.planVersion = made.version = null
    changed.value = false
    await keep()
  }

  return {
    open,
    openLast,
    keep,
    soon: useDebounceFn(keep, KEEP_MS),
    changed,
    missing,
    takeTheirs,
    keepMine,
  }
}
