<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { useRoute, useRouter } from 'vue-router'
import { api, fetched, type Chain, type Cook, type Problem } from '@/api/client'
import { useDraft } from '@/features/plan'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { duration } from '@/shared/format/time'
import CheckNotes from './CheckNotes.vue'
import CompareStages from './CompareStages.vue'
import WhatItTaught from './WhatItTaught.vue'
import { outcomeWords, whenWords } from './words'

const route = useRoute()
const router = useRouter()
const draft = useDraft()
const query = useQuery<Cook, Problem>({
  queryKey: ['cook', Number(route.params.id), 'log'],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}', { params: { path: { id: Number(route.params.id) } } })),
  retry: false,
})
const cook = query.data
const problem = query.error
const pulled = computed(() => cook.value?.summary.strip?.pulled_s ?? null)

/** In the kitchen as it is now: what that knows itself, and what it has learnt since, is left open. */
function again() {
  draft.begin(cook.value!.again as unknown as Chain)
  void router.push('/plan')
}
</script>

<template>
  <div class="page">
    <p class="no-print"><RouterLink to="/log">Log</RouterLink></p>
    <ProblemNote v-if="problem" :problem="problem" again @again="query.refetch()" />
    <p v-else-if="!cook" class="quiet" role="status">Finding the page…</p>
    <template v-else>
      <header>
        <div>
          <h1>{{ cook.summary.title }}</h1>
          <p class="quiet">{{ whenWords(cook.summary) }}</p>
        </div>
        <p class="how">{{ outcomeWords(cook.summary) }}</p>
        <el-button class="ember-button no-print" data-test="again" @click="again">
          Cook it again
        </el-button>
      </header>
      <p v-if="cook.summary.outcome?.note" class="note">{{ cook.summary.outcome.note }}</p>
      <CheckNotes :checks="cook.checks" :accepted="cook.accepted" />
      <h2>Plan beside actual</h2>
      <p class="figure">
        Planned {{ duration(cook.summary.planned_s) }}, took
        {{ cook.summary.actual_s == null ? 'an unknown time' : duration(cook.summary.actual_s) }}.
      </p>
      <CompareStages :stages="cook.stages" />
      <template v-if="cook.facts.glaze">
        <h2>The glaze, as planned</h2>
        <GlazeStrip :glaze="cook.facts.glaze" :pulled-s="pulled" compact />
      </template>
      <template v-if="cook.moved.length">
        <h2>What went elsewhere</h2>
        <p v-for="one in cook.moved" :key="one" data-test="moved">{{ one }}</p>
      </template>
      <template v-if="cook.signs.length && cook.glaze_after">
        <h2>After what you saw</h2>
        <p class="quiet figure">{{ cook.signs.join('; ') }}</p>
        <GlazeStrip :glaze="cook.glaze_after" :pulled-s="pulled" compact />
      </template>
      <WhatItTaught
        v-if="cook.signs.length || cook.summary.outcome?.colour"
        :cook="cook.summary.id"
        class="no-print"
      />
    </template>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 40px;
  align-items: center;
}
header div {
  flex: 1;
  min-width: 16rem;
}
header p {
  margin: 2px 0;
}
h1 {
  font-size: 1.9rem;
}
h2 {
  margin: 26px 0 8px;
}
.how {
  font: 700 1.2rem var(--kettle-display);
}
.note {
  font: 500 1.3rem/1.5 var(--kettle-display);
  border-left: 5px solid var(--kettle-ember);
  padding-left: 18px;
  max-width: 46rem;
}
</style>
