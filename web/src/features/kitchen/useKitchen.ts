import { computed, ref } from 'vue'
import { useMutation } from '@tanstack/vue-query'
import { useIntervalFn } from '@vueuse/core'
import {
  api,
  fetched,
  type Appliance,
  type ApplianceBody,
  type Calibrated,
  type KitchenSettings,
  type ObservationBody,
  type Problem,
} from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useUnits } from '@/shared/composables/useUnits'

/** The kitchen as it is kept, and every change to it. */
export function useKitchen() {
  const { known: kitchen, problem: missing, load } = useKitchenFigures()
  const units = useUnits()
  const picked = ref<number | null>(null)
  const chosen = computed({
    get: () => picked.value ?? kitchen.value?.appliances[0]?.id ?? null,
    set: (id) => (picked.value = id),
  })
  const appliance = computed(() => kitchen.value?.appliances.find((a) => a.id === chosen.value))

  // What is wrong with a change stays until one is taken.
  const refused = ref<Problem>()
  const sending = useMutation<unknown, Problem, () => Promise<{ data?: unknown; error?: unknown }>>(
    {
      mutationFn: (request) => fetched(request()),
      onSuccess: () => (refused.value = undefined),
      onError: (wrong) => (refused.value = wrong),
      // What was changed in another place is read, so that the next change is made to that.
      onSettled: (_, wrong) => (!wrong || wrong.status === 412 ? load(true) : undefined),
    },
  )
  const problem = computed(() => refused.value ?? missing.value ?? undefined)

  /** Sends a change and reads the kitchen anew; undefined where it was refused. */
  async function change<T>(
    request: () => Promise<{ data?: T; error?: unknown }>,
  ): Promise<T | undefined> {
    try {
      return (await sending.mutateAsync(request)) as T
    } catch {
      return undefined
    }
  }

  /** The change that the server was away for, or the kitchen itself. */
  async function again() {
    if (sending.isPending.value) return // the one under way is the one
    const unsent = refused.value?.status === 0 ? sending.variables.value : undefined
    if (unsent) await change(unsent)
    else await load(true)
  }
  useIntervalFn(() => {
    if (refused.value?.status === 0) void again()
  }, 15_000)

  const add = async (kind: string, name: string) => {
    const made = await change(() =>
      api.POST('/api/v1/kitchen/appliances', { body: { kind, name } as ApplianceBody }),
    )
    if (made) chosen.value = made.id
  }
  const keep = (one: Appliance, fields: Partial<ApplianceBody>) =>
    change(() =>
      api.PUT('/api/v1/kitchen/appliances/{id}', {
        params: { path: { id: one.id }, header: { 'If-Match': `"${one.version}"` } },
        body: { ...one.given, ...fields },
      }),
    )
  const drop = async (one: Appliance) => {
    await change(() =>
      api.DELETE('/api/v1/kitchen/appliances/{id}', { params: { path: { id: one.id } } }),
    )
    if (!refused.value) chosen.value = null
  }
  const observe = (one: Appliance, body: ObservationBody): Promise<Calibrated | undefined> =>
    change(() =>
      api.POST('/api/v1/kitchen/appliances/{id}/observations', {
        params: { path: { id: one.id } },
        body,
      }),
    )
  const forget = (id: number, again: boolean) =>
    again
      ? change(() =>
          api.POST('/api/v1/kitchen/observations/{id}/restore', { params: { path: { id } } }),
        )
      : change(() => api.DELETE('/api/v1/kitchen/observations/{id}', { params: { path: { id } } }))
  const settle = (fields: Partial<KitchenSettings>) => {
    const body = { ...kitchen.value!.settings, ...fields }
    if (fields.temperature) units.degrees.value = fields.temperature
    if (fields.measures) units.kitchen.value = fields.measures
    return change(() => api.PUT('/api/v1/kitchen/settings', { body }))
  }

  return {
    kitchen,
    problem,
    chosen,
    appliance,
    load,
    again,
    add,
    keep,
    drop,
    observe,
    forget,
    settle,
  }
}
