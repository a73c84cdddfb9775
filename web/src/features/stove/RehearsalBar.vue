<script setup lang="ts">
/** That it is a rehearsal, and how fast it runs. */
import { ref } from 'vue'
import { api, ask, type Live, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ cook: Live; rehearsal: NonNullable<Live['rehearsal']> }>()
const SPEEDS = [1, 5, 20, 60]
const live = useLive()
const problem = ref<Problem>()

async function change(body: { speed: number }) {
  const path = { params: { path: { id: props.cook.id } } }
  const { data, problem: found } = await ask(() =>
    api.PUT('/api/v1/cooks/{id}/rehearsal', { ...path, body }),
  )
  problem.value = found
  if (data) live.taken(data)
}
</script>

<template>
  <div class="rehearsal" role="group" aria-label="Rehearsal" data-test="rehearsal">
    <b>Rehearsal</b>
    <span class="quiet">Simulated food, a kitchen you do not know.</span>
    <el-radio-group
      :model-value="rehearsal.speed"
      aria-label="How fast it runs"
      @update:model-value="change({ speed: Number($event) })"
    >
      <el-radio-button
        v-for="speed in SPEEDS"
        :key="speed"
        :value="speed"
        :data-test="`speed-${speed}`"
      >
        {{ speed }}×
      </el-radio-button>
    </el-radio-group>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.rehearsal {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  margin-bottom: 10px;
  padding: 4px 16px;
  border: 2px dashed var(--kettle-ink-soft);
  border-radius: 14px;
}
.rehearsal b {
  font: 700 1.15rem var(--kettle-display);
}
.rehearsal .quiet {
  flex: 1 1 200px;
}
.rehearsal :deep(.el-radio-button__inner) {
  min-width: 52px;
  min-height: 44px;
  line-height: 26px;
}
@media (max-width: 860px) {
  .rehearsal .quiet {
    display: none;
  }
}
</style>
