import { ref } from 'vue'
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { api, ask, type Chain, type Problem } from '@/api/client'

const KEEP_MS = 660
const AGAIN_MS = 15_000

/** What is being edited, and the plan that it is kept as. `sitting` is another with each begin. */
interface Held {
  sitting: number
  planId: number | null
  planVersion: number | null
  begin: (document: Chain, id?: number | null, version?: number | null) => void
}

/** The plan that one sitting is kept as. */
interface Saved {
  sitting: number
  id: number | null
  version: number | null
}
const saved = (held: Held): Saved => ({
  sitting: held.sitting,
  id: held.planId,
  version: held.planVersion,
})

/** The saves of one store: they follow each other from page to page. */
interface Line {
  last: Promise<boolean>
  made: Saved
}
const lines = new WeakMap<object, Line>()
function lineOf(held: Held): Line {
  const line = lines.get(held) ?? { last: Promise.resolve(true), made: saved(held) }
  lines.set(held, line)
  return line
}

/** Keeping what is being edited as a plan: each change a moment later, to the version that was
 * read. What was changed elsewhere meanwhile is told, and nothing is written over it. */
export function useKept(held: Held, current: () => Chain | null) {
  const line = lineOf(held)
  const changed = ref(false)
  const missing = ref<Problem>()
  /** Why the last change is only here. */
  const unkept = ref<Problem>()

  const path = (id: number) => ({ params: { path: { id } } })
  const begin = (data: { dish: unknown; id: number; version: number }) =>
    held.begin(data.dish as Chain, data.id, data.version)

  /** Open a plan by its number. What is held of it already stays, and is told if it is older; what
   * was left or begun while it was on its way stays as well. */
  async function open(id: number) {
    const { sitting } = held
    missing.value = undefined
    changed.value = false
    await line.last
    const { data, problem } = await ask(() => api.GET('/api/v1/plans/{id}', path(id)))
    if (held.sitting !== sitting) return
    if (!data) missing.value = id === held.planId ? undefined : problem
    else if (id !== held.planId) begin(data)
    else changed.value = data.version > (held.planVersion ?? 0)
  }

  /** One save after the other, so that a slow first one is not made twice. Each takes along what
   * stood when it was asked for, even if something else is begun meanwhile. */
  function keep(): Promise<boolean> {
    const dish = current()
    if (!dish || changed.value) return Promise.resolve(false)
    const now = saved(held)
    const as = () => (line.made.sitting === now.sitting && line.made.id ? line.made : now)
    return (line.last = line.last.then(() => keepNow(dish, as())))
  }

  /** Save it where it still is as it was read, or anew where it is not there; whether it is done. */
  async function keepNow(dish: Chain, as: Saved): Promise<boolean> {
    if (as.id) {
      const seen = as.version ? { 'If-Match': `"${as.version}"` } : {}
      const params = { path: { id: as.id }, header: seen }
      const { data, problem } = await ask(() =>
        api.PUT('/api/v1/plans/{id}', { params, body: { dish } }),
      )
      if (data) note(as.sitting, data)
      if (held.sitting === as.sitting) {
        changed.value = problem?.status === 412
        unkept.value = [404, 412].includes(problem?.status ?? 0) ? undefined : problem
      }
      if (problem?.status !== 404) return !problem
    }
    const { data, problem } = await ask(() => api.POST('/api/v1/plans', { body: { dish } }))
    if (data) note(as.sitting, data)
    if (held.sitting === as.sitting) unkept.value = problem
    return Boolean(data)
  }

  function note(sitting: number, data: { id: number; version: number }) {
    line.made = { sitting, id: data.id, version: data.version }
    if (held.sitting === sitting) [held.planId, held.planVersion] = [data.id, data.version]
  }

  // A server that was away is asked again.
  useIntervalFn(() => {
    if (unkept.value?.status === 0) void keep()
  }, AGAIN_MS)

  /** Let the plan go on as it was changed elsewhere. */
  async function takeTheirs() {
    const { data } = await ask(() => api.GET('/api/v1/plans/{id}', path(held.planId!)))
    if (data) begin(data)
    changed.value = false
  }

  /** Keep this one, over what was changed elsewhere. */
  async function keepMine() {
    held.planVersion = line.made.version = null
    changed.value = false
    await keep()
  }

  return {
    open,
    keep,
    soon: useDebounceFn(keep, KEEP_MS),
    changed,
    missing,
    unkept,
    takeTheirs,
    keepMine,
  }
}
