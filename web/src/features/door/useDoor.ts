import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, ask, fetched, OFFLINE, type Door, type Problem } from '@/api/client'

const KEY = ['session']
const AWAY = { ...OFFLINE, detail: 'The kettle does not answer: try again when it is back.' }
const IN_ADDRESS = /^#join=(.+)$/

/** What a code says; as it stands where it is no code of ours. */
function unquoted(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

/** Whether this device has to tell the passcode first. Asked once, and again when an answer says so. */
export function useDoor() {
  const client = useQueryClient()
  const router = useRouter()
  const query = useQuery<Door, Problem>({
    queryKey: KEY,
    queryFn: () => fetched(api.GET('/api/v1/session')),
    staleTime: Infinity,
    retry: false,
  })
  const locked = computed(() => Boolean(query.data.value?.needed && !query.data.value.inside))
  const problem = ref<Problem>()

  async function join(passcode: string): Promise<void> {
    const { problem: found } = await ask(() => api.POST('/api/v1/session', { body: { passcode } }))
    problem.value = found?.status === 0 ? AWAY : found
    if (found) return
    // What was asked before the door opened says that it is shut.
    await client.cancelQueries({ queryKey: KEY })
    await query.refetch()
    await client.invalidateQueries({ predicate: (one) => one.queryKey[0] !== KEY[0] })
  }

  /** Once, by the application: a code that was scanned is told, and leaves the address bar. */
  async function begin() {
    api.use({
      onResponse: ({ response }) => {
        if (response.status === 401) void client.invalidateQueries({ queryKey: KEY })
      },
    })
    const scanned = IN_ADDRESS.exec(location.hash)?.[1]
    if (!scanned) return
    await router.isReady()
    await router.replace({ ...router.currentRoute.value, hash: '' })
    await join(unquoted(scanned))
  }

  return { door: query.data, locked, problem, join, begin }
}
