import { computed, type MaybeRefOrGetter, toValue, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Glaze, type Live, type Problem } from '@/api/client'
import { useLast } from '@/shared/composables/useLast'

const AGAIN_MS = 3_000

/** The strip of a cook, asked anew whenever what was done or seen changes it. The last one of
 * this cook stands while the server works or is away. */
export function useLiveGlaze(cook: MaybeRefOrGetter<Live | undefined>) {
  const id = computed(() => toValue(cook)?.id)
  const key = computed(() => toValue(cook)?.glaze_key ?? null)
  const { data } = useQuery<Glaze, Problem>({
    queryKey: ['glaze', id, key],
    queryFn: () =>
      fetched(api.GET('/api/v1/cooks/{id}/glaze', { params: { path: { id: id.value! } } })),
    enabled: computed(() => id.value !== undefined && key.value !== null),
    staleTime: Infinity,
    refetchInterval: ({ state }) => (state.error?.status === 0 ? AGAIN_MS : false),
  })
  const last = useLast(data)
  watch(id, () => (last.value = data.value))
  return computed(() => (key.value === null ? undefined : last.value))
}
