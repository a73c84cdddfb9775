import { computed, shallowRef } from 'vue'
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, fetched, type KeptMeal, type Problem } from '@/api/client'

/** Meals that are kept, the newest first; one that is let go can be kept anew. */
export function useMealShelf() {
  const client = useQueryClient()
  const query = useQuery({
    queryKey: ['meals'],
    queryFn: () => fetched(api.GET('/api/v1/meals', { params: { query: { limit: 50 } } })),
    retry: false,
  })
  const refresh = () => client.invalidateQueries({ queryKey: ['meals'] })
  const dropped = shallowRef<KeptMeal>()
  const away = useMutation<unknown, Problem, KeptMeal>({
    mutationFn: (meal) =>
      fetched(api.DELETE('/api/v1/meals/{id}', { params: { path: { id: meal.id } } })),
    onSuccess: (_, meal) => {
      dropped.value = meal
      return refresh()
    },
  })
  const back = useMutation<unknown, Problem>({
    mutationFn: () => fetched(api.POST('/api/v1/meals', { body: { meal: dropped.value!.meal } })),
    onSuccess: () => {
      dropped.value = undefined
      return refresh()
    },
  })
  return {
    meals: computed(() => query.data.value?.meals),
    aside: computed(() => query.data.value?.aside ?? []),
    problem: computed(
      () => (query.error.value as Problem | null) ?? away.error.value ?? back.error.value,
    ),
    dropped,
    drop: (meal: KeptMeal) => away.mutate(meal),
    undo: () => back.mutate(),
  }
}
