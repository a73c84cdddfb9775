import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Choices, type Problem } from '@/api/client'

const AGAIN_MS = 15_000

/** Cuts, sauces and ranges; asked once. */
export function useChoices() {
  return useQuery<Choices, Problem>({
    queryKey: ['choices'],
    queryFn: () => fetched(api.GET('/api/v1/choices')),
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (state.data ? false : AGAIN_MS),
  })
}
