<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import { onKeyStroke } from '@vueuse/core'
import AllergenNote from './AllergenNote.vue'
import ChainLine from './ChainLine.vue'
import PlanVerdict from './PlanVerdict.vue'
import SightWindow from './SightWindow.vue'
import { useClock } from '@/shared/composables/useClock'
import { duration } from '@/shared/format/time'
import ChangedNote from '@/shared/ui/ChangedNote.vue'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { capital } from '@/shared/format/words'
import PlanAssumed from './PlanAssumed.vue'
import CoatDrops from './CoatDrops.vue'
import CourseLine from './CourseLine.vue'
import PlanSentence from './PlanSentence.vue'
import PlanStart from './PlanStart.vue'
import PlanWarnings from './PlanWarnings.vue'
import FaultEditor from './FaultEditor.vue'
import InsideFood from './InsideFood.vue'
import OwnPlans from './OwnPlans.vue'
import RightVerdict from './RightVerdict.vue'
import PastVersions from './PastVersions.vue'
import SchoolsPanel from './SchoolsPanel.vue'
import TemplateShelf from './TemplateShelf.vue'
import WhyFire from './WhyFire.vue'
import { usePlan, useTemplates } from './usePlan'

const route = useRoute()
const router = useRouter()
const { draft, choices, forecast, problem, stale, keeping, unkept, leave, refresh } = usePlan(() =>
  route.params.id ? Number(route.params.id) : undefined,
)
const templates = useTemplates()
const now = useClock(10_000)
const starter = ref<InstanceType<typeof PlanStart>>()
const faults = computed(() => problem.value?.errors ?? [])
const blocked = computed(() => stale.value || Boolean(problem.value) || starter.value?.busy())
const fires = computed(() =>
  (forecast.value?.fires ?? []).map((fire) => ({
    ...fire,
    says: capital(forecast.value!.sentence.find((one) => one.stage === fire.stage)?.text ?? ''),
  })),
)

// The address is that of the plan, once it is kept as one. Not any more while the page is being
// left: a save that comes then must not call the way to the Stove off.
let left = false
onBeforeRouteLeave(() => void (left = true))
const toPlan = (id: number | null) => left || router.replace(id ? `/plan/${id}` : '/plan')
watch(() => draft.planId, toPlan)
onMounted(() => !route.params.id && draft.planId && toPlan(draft.planId))

/** The fire that is asked about. */
const why = ref('')
const name = ref('')
watch(
  () => draft.chain?.name,
  (told) => (name.value = told ?? ''),
  { immediate: true },
)
const rename = () => draft.edit((next) => (next.name = name.value.trim()))

onKeyStroke('z', (event) => {
  if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).closest('input')) return
  event.preventDefault()
  if (event.shiftKey) draft.redo()
  else draft.undo()
})
</script>

<template>
  <div class="page chain-page">
    <ProblemNote v-if="keeping.missing.value" :problem="keeping.missing.value" />
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
      <template v-else>
        <OwnPlans @pick="draft.begin" />
        <h2>To begin with</h2>
        <TemplateShelf :templates="templates.data.value" @pick="draft.begin" />
      </template>
    </template>
    <template v-else>
      <h1 class="visually-hidden">{{ draft.chain.name || 'Plan' }}</h1>
      <el-input
        v-model="name"
        class="name no-print"
        maxlength="80"
        placeholder="a name for it"
        aria-label="What you call it"
        data-test="name"
        @change="rename"
      />
      <div class="tools no-print">
        <el-button class="plain-button" data-test="shelf" @click="leave()"> Another way </el-button>
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
        <RouterLink to="/plan/page" class="plain-button el-button" data-test="fridge">
          One page for the fridge
        </RouterLink>
        <RouterLink to="/plan/compare" class="plain-button el-button" data-test="compare">
          Compare
        </RouterLink>
        <PastVersions v-if="draft.planId" :plan-id="draft.planId" :now="now" />
      </div>
      <ChangedNote
        v-if="keeping.changed.value"
        what="This one"
        @theirs="keeping.takeTheirs"
        @mine="keeping.keepMine"
      />
      <p v-if="unkept && !problem" class="unkept" role="alert" data-test="unkept">
        <b>This change is only on this device yet:</b> {{ unkept.detail }}
      </p>
      <p v-if="!forecast && !problem" class="quiet" role="status">Working out the times…</p>
      <ProblemNote v-if="problem && !faults.length" :problem="problem" again @again="refresh()" />
      <template v-if="forecast && choices">
        <PlanSentence :forecast="forecast" :choices="choices" :faults="faults" :now="now" />
        <div :class="{ stale: stale || problem }" :aria-busy="stale">
          <PlanVerdict
            :forecast="forecast"
            :now="now"
            :blocked="blocked"
            @start="starter?.begin()"
            @rehearse="starter?.rehearse()"
          />
          <RightVerdict :forecast="forecast" :chain="draft.chain" :stale="stale" />
          <PlanStart ref="starter" :forecast="forecast" :chain="draft.chain" :now="now" />
          <ChainLine :forecast="forecast" />
          <CourseLine :forecast="forecast" />
          <section v-for="fire in fires" :key="fire.stage" class="fire">
            <h2>{{ fire.says }}</h2>
            <SightWindow v-if="fire.by === 'colour'" :glaze="fire.glaze" />
            <p v-else class="figure">
              By the clock: {{ duration(fire.timer_s) }}. I call you when they are over.
            </p>
            <GlazeStrip :glaze="fire.glaze" compact>
              <template #coats="strip">
                <CoatDrops v-bind="strip" :fire="fire" :held="Boolean(blocked)" />
              </template>
            </GlazeStrip>
            <el-button
              class="plain-button why no-print"
              :aria-expanded="why === fire.stage"
              :data-test="`why-${fire.stage}`"
              @click="why = why === fire.stage ? '' : fire.stage"
            >
              {{ why === fire.stage ? 'Enough of the why' : 'Why this heat?' }}
            </el-button>
            <WhyFire
              v-if="why === fire.stage && !problem"
              :fire="fire"
              :held="Boolean(blocked)"
              :chain="draft.chain"
              :choices="choices"
            />
          </section>
          <SchoolsPanel :chain="draft.chain" :stale="Boolean(blocked)" />
          <div class="two">
            <PlanWarnings :forecast="forecast" />
            <div>
              <AllergenNote :forecast="forecast" />
              <InsideFood :forecast="forecast" />
              <PlanAssumed
                :forecast="forecast"
                :chain="draft.chain"
                :choices="choices"
                :stale="Boolean(blocked)"
              />
            </div>
          </div>
        </div>
      </template>
      <FaultEditor v-else-if="faults.length && choices" :faults="faults" :choices="choices" />
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
  text-decoration: none;
}
.name {
  --el-input-height: 52px;
  max-width: 760px;
  margin-bottom: -6px;
}
.name :deep(.el-input__wrapper) {
  padding: 0;
  border: 0;
  border-bottom: 2px dotted var(--kettle-line);
  border-radius: 0;
  background: none;
  box-shadow: none;
}
.name :deep(.el-input__wrapper.is-focus) {
  border-bottom: 3px solid var(--kettle-ember);
}
.name :deep(input) {
  font: 700 1.35rem var(--kettle-display);
}
.unkept {
  margin: 0;
  padding: 10px 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
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
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 40px;
}
@media (max-width: 860px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
@media (max-width: 640px) {
  h1 {
    font-size: 1.7rem;
  }
}
</style>
