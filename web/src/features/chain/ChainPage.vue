<script setup lang="ts">
import { computed, ref } from 'vue'
import { onKeyStroke } from '@vueuse/core'
import type { Forecast } from '@/api/client'
import ChainLine from '@/features/plan/ChainLine.vue'
import PlanVerdict from '@/features/plan/PlanVerdict.vue'
import SightWindow from '@/features/plan/SightWindow.vue'
import { useClock } from '@/shared/composables/useClock'
import { duration } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ChainSentence from './ChainSentence.vue'
import ChainStart from './ChainStart.vue'
import ChainWarnings from './ChainWarnings.vue'
import TemplateShelf from './TemplateShelf.vue'
import { useChain, useTemplates } from './useChain'

const { draft, complete, choices, forecast, problem, stale, refresh } = useChain()
const templates = useTemplates()
const now = useClock(10_000)
const starter = ref<InstanceType<typeof ChainStart>>()
/** The line and the verdict read a chain as they read a dish. */
const asLine = computed(
  () =>
    forecast.value && ({ ...forecast.value, stages: forecast.value.links } as unknown as Forecast),
)
const faults = computed(() => problem.value?.errors ?? [])
const blocked = computed(() => stale.value || Boolean(problem.value) || starter.value?.busy)
const fires = computed(() =>
  (forecast.value?.fires ?? []).map((fire) => ({
    ...fire,
    says: capital(forecast.value!.sentence.find((one) => one.stage === fire.stage)?.text ?? ''),
  })),
)

function capital(text: string) {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

onKeyStroke('z', (event) => {
  if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).closest('input')) return
  event.preventDefault()
  if (event.shiftKey) draft.redo()
  else draft.undo()
})
</script>

<template>
  <div class="page chain-page">
    <template v-if="!draft.chain">
      <h1>What shall it go through?</h1>
      <p class="lead">Heats, waits and hands in a row. Pick one that is near, then change it.</p>
      <p v-if="draft.left" class="back">
        <el-button class="plain-button" data-test="back" @click="draft.begin(draft.left)">
          Back to “{{ draft.left.name || 'what you had' }}”, as you changed it
        </el-button>
      </p>
      <ProblemNote
        v-if="templates.error.value"
        :problem="templates.error.value"
        again
        @again="templates.refetch()"
      />
      <p v-else-if="!templates.data.value" class="quiet" role="status">Looking on the shelf…</p>
      <TemplateShelf v-else :templates="templates.data.value" @pick="draft.begin($event)" />
    </template>
    <template v-else>
      <h1 class="visually-hidden">{{ draft.chain.name || 'Chain' }}</h1>
      <div class="tools no-print">
        <el-button class="plain-button" data-test="shelf" @click="draft.leave()">
          Another way
        </el-button>
        <el-button
          class="plain-button"
          :disabled="!draft.canUndo"
          data-test="undo"
          @click="draft.undo()"
        >
          Undo
        </el-button>
        <el-button
          class="plain-button"
          :disabled="!draft.canRedo"
          data-test="redo"
          @click="draft.redo()"
        >
          Redo
        </el-button>
      </div>
      <p v-if="!forecast && !problem" class="quiet" role="status">Working out the times…</p>
      <ProblemNote v-if="problem && !faults.length" :problem="problem" again @again="refresh()" />
      <template v-if="forecast && choices && asLine">
        <ChainSentence :forecast="forecast" :choices="choices" :faults="faults" />
        <div :class="{ stale: stale || problem }" :aria-busy="stale">
          <PlanVerdict :forecast="asLine" :now="now" :blocked="blocked" @start="starter?.begin()" />
          <ChainStart ref="starter" :forecast="forecast" :chain="complete!" />
          <ChainLine :forecast="asLine" />
          <section v-for="fire in fires" :key="fire.stage" class="fire">
            <h2>{{ fire.says }}</h2>
            <SightWindow v-if="fire.by === 'colour'" :glaze="fire.glaze" />
            <p v-else class="figure">
              By the clock: {{ duration(fire.timer_s) }}. I call you when they are over.
            </p>
            <GlazeStrip :glaze="fire.glaze" compact />
          </section>
          <ChainWarnings :forecast="forecast" />
          <p v-if="forecast.allergens.length" class="quiet">
            Holds: {{ forecast.allergens.join(', ') }}.
          </p>
        </div>
      </template>
      <ul v-else-if="faults.length" class="faults">
        <li v-for="fault in faults" :key="fault.field">{{ fault.field }}: {{ fault.accepted }}</li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.chain-page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}
h1 {
  font-size: 2.3rem;
  margin: 8px 0 0;
}
.lead {
  margin: 0 0 8px;
  font-size: 1.15rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.tools .el-button {
  margin: 0;
}
.stale {
  opacity: 0.45;
  transition: opacity 0.2s;
}
.fire {
  margin-top: 26px;
}
.fire h2 {
  font-size: 1.3rem;
}
.fire p {
  margin: 4px 0 10px;
}
.faults {
  color: var(--kettle-stop);
}
@media (max-width: 640px) {
  h1 {
    font-size: 1.7rem;
  }
}
</style>
