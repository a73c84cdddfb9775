<script setup lang="ts">
import { computed, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLive } from '@/features/live'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import LiveStove from './LiveStove.vue'
import ManyCooks from './ManyCooks.vue'
import { useAwake } from './useAwake'

const route = useRoute()
const router = useRouter()
const live = useLive()
const id = computed(() => (route.params.id ? Number(route.params.id) : undefined))
useAwake()

/** Whether sides of its supper are still to be done: they stand on the page of them all. */
const hasSides = (supper: number | null) =>
  live.suppers.some((one) => one.id === supper && one.sides.some((side) => side.step))

// Without a number the stove finds the cook that is on.
watchEffect(() => {
  const only = live.underWay.length === 1 ? live.underWay[0] : undefined
  if (only && hasSides(only.supper)) return
  if (route.name === 'stove' && !id.value && only) void router.replace(`/stove/${only.id}`)
})
</script>

<template>
  <LiveStove v-if="id" :id="id" :key="id" />
  <div v-else class="page">
    <ProblemNote v-if="live.problem" :problem="live.problem" again @again="live.refresh" />
    <p v-else-if="!live.known" class="quiet" role="status">Looking at the stove…</p>
    <ManyCooks v-else-if="live.underWay.length" />
    <section v-else>
      <h1>The stove is cold.</h1>
      <p>Nothing is cooking. Start a plan and it comes here.</p>
      <RouterLink to="/plan" class="ember-button">To the plan</RouterLink>
    </section>
    <p v-for="one in live.aside" :key="one.id" class="quiet">
      “{{ one.title }}” is set aside: {{ one.why }}
    </p>
  </div>
</template>
