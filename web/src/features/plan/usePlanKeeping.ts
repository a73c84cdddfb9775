import { ref } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { api, ask, type Dish, type Problem } from '@/api/client'
import { useDraft } from './draft'

const KEEP_MS = 660

/** Keeping the plan that is being edited: each change a moment later, to the version that was read.
 * What was changed elsewhere meanwhile is told, and nothing is written over it. */
export function usePlanKeeping() {
  const draft = useDraft()
  const changed = ref(false)
  const missing = ref<Problem>()

  const path = (id: number) => ({ params: { path: { id } } })

  /** Open a plan by its number, or the last one where there is no draft. */
  async function open(id?: number) {
    missing.value = undefined
    changed.value = false
    if (id && id !== draft.planId) {
      const { data, problem } = await ask(() => api.GET('/api/v1/plans/{id}', path(id)))
      if (data) draft.begin(data.dish as unknown as Dish, data.id, data.version)
      missing.value = problem
    } else if (!draft.dish) {
      const { data } = await ask(() =>
        api.GET('/api/v1/plans', { params: { query: { limit: 1 } } }),
      )
      const last = data?.plans[0]
      if (last) draft.begin(last.dish as unknown as Dish, last.id, last.version)
    }
  }

  /** Change the plan that is kept, where it still is as it was read; undefined once that is done. */
  async function change(id: number, dish: Dish): Promise<Problem | undefined> {
    const seen = draft.planVersion ? { 'If-Match': `"${draft.planVersion}"` } : {}
    const { data, problem } = await ask(() =>
      api.PUT('/api/v1/plans/{id}', {
        params: { path: { id }, header: seen },
        body: { dish },
      }),
    )
    if (data) draft.planVersion = data.version
    changed.value = problem?.status === 412
    return problem
  }

  async function keep() {
    const dish = draft.dish
    if (!dish || changed.value) return
    if (draft.planId) {
      const problem = await change(draft.planId, dish)
      if (problem?.status !== 404) return
    }
    const { data } = await ask(() => api.POST('/api/v1/plans', { body: { dish } }))
    if (data) [draft.planId, draft.planVersion] = [data.id, data.version]
  }

  /** Let the plan go on as it was changed elsewhere. */
  async function takeTheirs() {
    const { data } = await ask(() => api.GET('/api/v1/plans/{id}', path(draft.planId!)))
    if (data) draft.begin(data.dish as unknown as Dish, data.id, data.version)
    changed.value = false
  }

  /** Keep this one, over what was changed elsewhere. */
  async function keepMine() {
    draft.planVersion = null
    changed.value = false
    await keep()
  }

  return { open, soon: useDebounceFn(keep, KEEP_MS), changed, missing, takeTheirs, keepMine }
}
