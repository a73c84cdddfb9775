<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, ask, fetched, type Lessons, type Problem } from '@/api/client'
import { capital } from '@/shared/format/words'
import MahoganyMoved from '@/shared/ui/MahoganyMoved.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SignsSeen from '@/shared/ui/SignsSeen.vue'

/** What the signs and the colour of this cook say of its appliances: the next plan reckons with it. */
const props = defineProps<{ cook: number }>()
const queries = useQueryClient()
const query = useQuery<Lessons, Problem>({
  queryKey: ['cook', props.cook, 'lessons'],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}/lessons', { params: { path: { id: props.cook } } })),
  retry: false,
})
const found = computed(() => query.data.value?.appliances ?? [])
const refused = ref<Problem>()
const sending = ref(false)

async function forget(id: number, again: boolean) {
  if (sending.value) return
  sending.value = true
  const params = { path: { id } }
  const answer = again
    ? await ask(() => api.POST('/api/v1/kitchen/observations/{id}/restore', { params }))
    : await ask(() => api.DELETE('/api/v1/kitchen/observations/{id}', { params }))
  refused.value = answer.problem
  if (!answer.problem) {
    await queries.invalidateQueries({ queryKey: ['kitchen'] })
    await query.refetch()
  }
  sending.value = false
}
</script>

<template>
  <section v-if="found.length" data-test="taught">
    <h2>What it taught</h2>
    <p class="quiet">The next plan reckons with it.</p>
    <article v-for="one in found" :key="one.appliance_id" :data-test="`taught-${one.appliance_id}`">
      <h3>{{ capital(one.appliance) }}</h3>
      <p>{{ capital(one.says) }}.</p>
      <MahoganyMoved :before="one.before" :after="one.after" />
      <SignsSeen :signs="one.observations" @forget="forget" />
    </article>
    <ProblemNote v-if="refused" :problem="refused" />
  </section>
</template>

<style scoped>
h2 {
  margin: 26px 0 8px;
}
article {
  margin-top: 14px;
  display: grid;
  gap: 10px;
  max-width: 46rem;
}
h3 {
  font-size: 1.2rem;
  margin: 0;
}
p {
  margin: 0;
}
</style>
