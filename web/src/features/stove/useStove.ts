import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useIntervalFn, useWakeLock } from '@vueuse/core'
import { api, ask, type EventBody, type Glaze, type Live, type Problem } from '@/api/client'
import { useClock } from '@/shared/composables/useClock'

/** A live cook: asked once a second, told by taps, with the server's clock. */
export function useStove(id: () => number) {
  const live = shallowRef<Live>()
  const glaze = shallowRef<Glaze>()
  const problem = ref<Problem>()
  const refused = ref<Problem>()
  const busy = ref(false)
  const offset = ref(0)
  const local = useClock(250)
  let asking = false

  const now = computed(() => new Date(local.value.getTime() + offset.value))
  const underS = computed(() =>
    live.value?.fire_since
      ? (now.value.getTime() - new Date(live.value.fire_since).getTime()) / 1000
      : null,
  )

  function take(next: Live) {
    live.value = next
    offset.value = new Date(next.now).getTime() - Date.now()
  }

  async function refresh() {
    if (asking) return
    asking = true
    const { data, problem: found } = await ask(() =>
      api.GET('/api/v1/cooks/{id}/live', { params: { path: { id: id() } } }),
    )
    asking = false
    problem.value = found
    if (data) take(data)
  }

  async function loadGlaze() {
    const { data } = await ask(() =>
      api.GET('/api/v1/cooks/{id}/glaze', { params: { path: { id: id() } } }),
    )
    if (data) glaze.value = data
  }

  // A tap that does not reach the server is kept and sent again: its own age goes with it.
  const shelf = `kettle-unsent-${id()}`
  const unsent: { body: EventBody; at: number }[] = JSON.parse(
    localStorage.getItem(shelf) ?? '[]',
  ) as { body: EventBody; at: number }[]
  const keep = () =>
    unsent.length
      ? localStorage.setItem(shelf, JSON.stringify(unsent))
      : localStorage.removeItem(shelf)

  async function tell(body: EventBody) {
    unsent.push({ body, at: Date.now() })
    keep()
    await send()
  }

  async function send() {
    if (busy.value) return
    busy.value = true
    while (unsent.length) {
      const { body, at } = unsent[0]!
      const waited = Math.max(0, (Date.now() - at) / 1000 - 0.5)
      const sent = { ...body, ago_s: (body.ago_s ?? 0) + (waited > 1 ? waited : 0) }
      const { data, problem: found } = await ask(() =>
        api.POST('/api/v1/cooks/{id}/events', { params: { path: { id: id() } }, body: sent }),
      )
      if (found?.status === 0) {
        problem.value = found
        break
      }
      unsent.shift()
      keep()
      refused.value = found
      if (data) take(data)
    }
    busy.value = false
  }

  useIntervalFn(async () => {
    if (unsent.length) await send()
    if (live.value?.ended_at == null) await refresh()
  }, 1000)
  watch(
    () => live.value?.glaze_key,
    () => void loadGlaze(),
  )
  const wake = useWakeLock()
  onMounted(async () => {
    await refresh()
    if (wake.isSupported.value) await wake.request('screen').catch(() => undefined)
  })
  watch(id, () => {
    live.value = undefined
    glaze.value = undefined
    void refresh()
  })

  const waiting = computed(() => unsent.length)
  return { live, glaze, problem, refused, busy, now, underS, tell, refresh, waiting }
}
