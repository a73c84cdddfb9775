import { computed, type Ref } from 'vue'
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQueryClient,
} from '@tanstack/vue-query'
import { api, fetched, type Problem } from '@/api/client'

/** Cooks looked back on, a page at a time, newest first; by the words of a title. */
export function useCooks(search: Ref<string>) {
  const client = useQueryClient()
  const query = useInfiniteQuery({
    queryKey: ['log', search],
    queryFn: ({ pageParam }) =>
      fetched(
        api.GET('/api/v1/cooks', {
          params: { query: { search: search.value, after: pageParam } },
        }),
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.more || undefined,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const pages = computed(() => query.data.value?.pages)
  const refresh = async () => {
    await client.invalidateQueries({ queryKey: ['kitchen'] }) // what it taught goes with it
    await client.invalidateQueries({ queryKey: ['log'] })
  }
  const path = (id: number) => ({ params: { path: { id } } })
  const drop = useMutation<unknown, Problem, number>({
    mutationFn: (id) => fetched(api.DELETE('/api/v1/cooks/{id}', path(id))),
    onSuccess: refresh,
  })
  const restore = useMutation<unknown, Problem, number>({
    mutationFn: (id) => fetched(api.POST('/api/v1/cooks/{id}/restore', path(id))),
    onSuccess: refresh,
  })
  return {
    cooks: computed(() => pages.value?.flatMap((page) => page.cooks)),
    aside: computed(() => pages.value?.flatMap((page) => page.aside ?? []) ?? []),
    more: query.hasNextPage,
    next: () => query.fetchNextPage(),
    problem: computed(
      () => (query.error.value as Problem | null) ?? drop.error.value ?? restore.error.value,
    ),
    refresh: () => query.refetch(),
    drop,
    restore,
  }
}
