import { computed, ref, type Ref } from 'vue'
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQueryClient,
  type QueryClient,
} from '@tanstack/vue-query'
import { api, fetched, type Chain, type Problem } from '@/api/client'

/** Ask for the kept plans anew. A first answer that is still on its way is older than the change. */
export async function askPlansAgain(client: QueryClient) {
  await client.cancelQueries({ queryKey: ['plans'] })
  await client.invalidateQueries({ queryKey: ['plans'] })
}

/** Kept plans, a page at a time, the newest first; by the words of a title. */
export function usePlans(search: Ref<string>) {
  const client = useQueryClient()
  const query = useInfiniteQuery({
    queryKey: ['plans', search],
    queryFn: ({ pageParam }) =>
      fetched(
        api.GET('/api/v1/plans', {
          params: { query: { search: search.value, after: pageParam } },
        }),
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.more || undefined,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const refresh = () => askPlansAgain(client)
  const drop = useMutation<unknown, Problem, number>({
    mutationFn: (id) => fetched(api.DELETE('/api/v1/plans/{id}', { params: { path: { id } } })),
    onSuccess: refresh,
  })
  type Plan = NonNullable<typeof query.data.value>['pages'][number]['plans'][number]
  const dropped = ref<Plan>()
  async function letGo(plan: Plan) {
    await drop.mutateAsync(plan.id)
    dropped.value = plan
  }
  /** Keep anew what was let go; where that fails it can be tried again. */
  async function undo() {
    const dish = dropped.value!.dish as unknown as Chain
    await fetched(api.POST('/api/v1/plans', { body: { dish } }))
    dropped.value = undefined
    await refresh()
  }
  const back = useMutation<unknown, Problem>({ mutationFn: undo })
  const pages = computed(() => query.data.value?.pages)
  return {
    plans: computed(() => pages.value?.flatMap((page) => page.plans)),
    aside: computed(() => pages.value?.flatMap((page) => page.aside ?? []) ?? []),
    more: query.hasNextPage,
    next: () => query.fetchNextPage(),
    problem: computed(
      () => (query.error.value as Problem | null) ?? drop.error.value ?? back.error.value,
    ),
    letGo,
    dropped,
    undo: () => back.mutate(),
    refresh,
  }
}
