import { computed, ref } from 'vue'
import { useIntervalFn } from '@vueuse/core'
import {
  api,
  ask,
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
  const { known: kitchen, load } = useKitchenFigures()
  const units = useUnits()
  const problem = ref<Problem>()
  const chosen = ref<number | null>(null)
  const appliance = computed(() => kitchen.value?.appliances.find((a) => a.id === chosen.value))

  async function open() {
    await load(true)
    problem.value = kitchen.value
      ? undefined
      : {
          type: 'about:blank',
          title: 'No answer',
          status: 0,
          detail: 'The kettle does not answer. I keep trying.',
          errors: [],
        }
    chosen.value ??= kitchen.value?.appliances[0]?.id ?? null
  }

  // A change that the server was away for; "Try again" sends it.
  let unsent: (() => Promise<unknown>) | undefined

  /** Sends a change, keeps what is wrong with it, and reads the kitchen anew. */
  async function change<T>(
    request: () => Promise<{ data?: T; error?: unknown }>,
  ): Promise<T | undefined> {
    const answer = await ask(request)
    problem.value = answer.problem
    unsent = answer.problem?.status === 0 ? () => change(request) : undefined
    // What was changed in another place is read, so that the next change is made to that.
    if (!answer.problem || answer.problem.status === 412) await load(true)
    return answer.data
  }

  async function again() {
    if (unsent) await unsent()
    else await open()
  }

  // A server that was away is asked again.
  useIntervalFn(() => {
    if (problem.value?.status === 0) void again()
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
    if (!problem.value) chosen.value = kitchen.value?.appliances[0]?.id ?? null
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
    open,
    again,
    add,
    keep,
    drop,
    observe,
    forget,
    settle,
  }
}
