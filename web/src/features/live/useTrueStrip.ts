import { computed, type MaybeRefOrGetter, toValue } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Glaze, type Live, type Problem } from '@/api/client'
import { useLast } from '@/shared/composables/useLast'

/** How the simulated food of a rehearsal browns: what there is to see. Nothing of a cook in earnest. */
export function useTrueStrip(cook: MaybeRefOrGetter<Live | undefined>) {
  const id = computed(() => toValue(cook)?.id)
  const key = computed(() => toValue(cook)?.rehearsal?.strip_key ?? null)
  const { data } = useQuery<Glaze, Problem>({
    queryKey: ['truth', id, key],
    queryFn: () =>
      fetched(api.GET('/api/v1/cooks/{id}/truth', { params: { path: { id: id.value! } } })),
    enabled: computed(() => id.value !== undefined && key.value !== null),
    staleTime: Infinity,
  })
  const last = useLast(data)
  return computed(() => (key.value === null ? undefined : last.value))
}
