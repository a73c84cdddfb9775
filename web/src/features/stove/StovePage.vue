<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import LiveStove from './LiveStove.vue'

const route = useRoute()
const router = useRouter()
const problem = ref<Problem>()
const empty = ref(false)

/** Without a number the stove finds the cook that is on. */
async function find() {
  empty.value = false
  problem.value = undefined
  if (route.name !== 'stove' || route.params.id) return
  const { data, problem: found } = await ask(() => api.GET('/api/v1/cooks'))
  problem.value = found
  const on = data?.cooks.find((c) => !c.ended_at)
  if (on) void router.replace(`/stove/${on.id}`)
  else empty.value = Boolean(data)
}
onMounted(find)
watch(() => route.fullPath, find)
</script>

<template>
  <LiveStove v-if="route.params.id" :id="Number(route.params.id)" :key="String(route.params.id)" />
  <div v-else class="page">
    <ProblemNote v-if="problem" :problem="problem" again @again="find" />
    <section v-if="empty">
      <h1>The stove is cold.</h1>
      <p>Nothing is cooking. Start a plan and it comes here.</p>
      <RouterLink to="/plan" class="ember-button cold">To the plan</RouterLink>
    </section>
  </div>
</template>

<style scoped>
.cold {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}
</style>
