<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { useWakeLock } from '@vueuse/core'
import { api, fetched, type EventBody, type Problem } from '@/api/client'
import { fireSeconds, SoundNote, useCookKeys, useLive, useLiveGlaze } from '@/features/live'
import { clock } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import OutcomeForm from './OutcomeForm.vue'
import SideSteps from './SideSteps.vue'
import StepList from './StepList.vue'
import StoveFoot from './StoveFoot.vue'
import WaysOut from './WaysOut.vue'
import WhatNow from './WhatNow.vue'

const props = defineProps<{ id: number }>()
const live = useLive()
const own = useQuery({
  queryKey: ['cook', props.id, 'live'],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}/live', { params: { path: { id: props.id } } })),
})
const cook = computed(() => live.cookOf(props.id) ?? own.data.value)
const problem = computed(() => (own.error.value as Problem | null) ?? live.problem)
const glaze = useLiveGlaze(cook)
const under = computed(() => fireSeconds(cook.value, live.now))
const over = computed(() => cook.value && (cook.value.finished || cook.value.ended_at))
const line = computed(() => cook.value?.steps.filter((s) => !s.beside) ?? [])
const next = computed(() => {
  const place = line.value.findIndex((s) => s.key === cook.value?.current)
  return line.value.slice(place + 1, place + 4)
})
const told = (body: EventBody) => void live.tell(props.id, body)
useCookKeys(cook, told, () => !live.call)

const wake = useWakeLock()
onMounted(() => void (wake.isSupported.value && wake.request('screen').catch(() => undefined)))
</script>

<template>
  <div class="page stove">
    <ProblemNote v-if="problem" :problem="problem" again @again="live.refresh" />
    <p v-else-if="!cook" class="quiet" role="status">Looking at the stove…</p>
    <OutcomeForm v-if="cook && over" :cook="cook" @undo="told({ kind: 'undo' })" />
    <div v-else-if="cook" class="halves">
      <section class="card" aria-label="What to do now">
        <WhatNow :cook="cook" :bare="glaze && !glaze.caramelises" @told="told" />
        <SideSteps :cook="cook" @told="told" />
      </section>
      <aside>
        <p class="eat figure">
          On the table about <b>{{ clock(cook.serve_at) }}</b>
          <span>{{ clock(cook.serve_low_at) }} to {{ clock(cook.serve_high_at) }}</span>
        </p>
        <h2>Next</h2>
        <StepList :steps="next" brief />
        <details>
          <summary>All steps</summary>
          <div class="all" tabindex="0" role="region" aria-label="All steps">
            <StepList :steps="line" @told="told" />
          </div>
        </details>
        <StoveFoot :cook="cook" />
      </aside>
      <section v-if="under !== null && glaze" class="strip" aria-label="The glaze now">
        <GlazeStrip :glaze="glaze" :now-s="under" />
        <WaysOut :id="id" :under-s="under" :seen="cook.glaze_key ?? ''" />
      </section>
    </div>
    <SoundNote v-if="cook && !cook.ended_at" />
  </div>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 26px 48px;
}
.card {
  display: grid;
  gap: 14px;
  align-content: start;
}
.strip {
  grid-column: 1 / -1;
  display: grid;
  gap: 12px;
}
.eat {
  font-size: 1.15rem;
  margin: 0 0 22px;
}
.eat b {
  font: 700 2.4rem var(--kettle-display);
  display: block;
  color: var(--kettle-ember);
}
summary {
  cursor: pointer;
  padding: 14px 0;
  font-weight: 700;
}
summary + .all {
  max-height: 330px;
  overflow: auto;
}
@media (max-width: 860px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
