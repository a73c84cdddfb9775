import { computed, type MaybeRefOrGetter, toValue } from 'vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { api, fetched, type Live } from '@/api/client'

/** The strip of a cook, asked anew whenever what was done or seen changes it. */
export function useLiveGlaze(cook: MaybeRefOrGetter<Live | undefined>) {
  const id = computed(() => toValue(cook)?.id)
  const key = computed(() => toValue(cook)?.glaze_key ?? null)
  const { data } = useQuery({
    queryKey: ['glaze', id, key],
    queryFn: () =>
      fetched(api.GET('/api/v1/cooks/{id}/glaze', { params: { path: { id: id.value! } } })),
    enabled: computed(() => id.value !== undefined && key.value !== null),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
  return data
}
