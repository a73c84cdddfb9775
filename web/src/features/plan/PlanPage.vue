<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, ask, type Dish } from '@/api/client'
import { useClock } from '@/shared/composables/useClock'
import ChangedNote from '@/shared/ui/ChangedNote.vue'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import AllergenNote from './AllergenNote.vue'
import DishAssumed from './DishAssumed.vue'
import BestRepair from './BestRepair.vue'
import ChainLine from './ChainLine.vue'
import CookSentence from './CookSentence.vue'
import InsideFood from './InsideFood.vue'
import PlanShelf from './PlanShelf.vue'
import PlanVerdict from './PlanVerdict.vue'
import SightWindow from './SightWindow.vue'
import StartDialog from './StartDialog.vue'
import WhyHeat from './WhyHeat.vue'
import WatchOuts from './WatchOuts.vue'
import { usePlan } from './usePlan'

const route = useRoute()
const plan = usePlan(() => (route.params.id ? Number(route.params.id) : undefined))
const { draft, known, inKitchen, choices, forecast, problem, faults, stale, opened } = plan
const now = useClock(10_000)
const why = ref(false)
const settling = ref(false)
const dialog = ref<InstanceType<typeof StartDialog>>()
const complete = computed(() => (draft.dish ? inKitchen(draft.dish) : undefined))
const send = (accepted: { stop: string; reason: string }[], when: 'now' | 'planned') =>
  ask(() =>
    api.POST('/api/v1/cooks', {
      body: { dish: complete.value!, plan_id: draft.planId, when, accepted },
    }),
  )
const blocked = computed(() => stale.value || Boolean(problem.value) || dialog.value?.busy)
</script>

<template>
  <div class="page plan">
    <h1 class="visually-hidden">Plan</h1>
    <p v-if="!forecast && draft.dish && !problem" class="quiet" role="status">
      Working out the times…
    </p>
    <ProblemNote
      v-if="problem && !problem.errors?.length"
      :problem="problem"
      again
      @again="plan.refresh"
    />
    <ChangedNote
      v-if="plan.changed.value"
      what="This plan"
      @theirs="plan.takeTheirs"
      @mine="plan.keepMine"
    />
    <section v-if="opened && !draft.dish" class="empty">
      <h2>No dish yet.</h2>
      <p>Nine taps make one.</p>
      <RouterLink to="/" class="ember-button">What is on the counter?</RouterLink>
    </section>
    <template v-if="draft.dish && complete && choices">
      <CookSentence :dish="draft.dish" :choices="choices" :faults="faults" :now="now" />
      <template v-if="forecast">
        <div :class="{ stale: stale || problem }" :aria-busy="stale">
          <PlanVerdict
            :forecast="forecast"
            :now="now"
            :blocked="blocked"
            @start="dialog?.begin()"
          />
          <StartDialog
            ref="dialog"
            v-model="settling"
            :forecast="forecast"
            :serve-at="complete.serve_at"
            :send="send"
            :now="now"
            @repair="draft.change($event as Partial<Dish>)"
          />
          <ProblemNote v-if="dialog?.problem && !settling" :problem="dialog.problem" />
          <BestRepair :dish="complete" :glaze="forecast.glaze" />
          <ChainLine :forecast="forecast" />
          <section class="glaze">
            <h2>Under the heat</h2>
            <SightWindow :glaze="forecast.glaze" />
            <GlazeStrip :glaze="forecast.glaze" />
            <el-button
              class="plain-button no-print"
              :aria-expanded="why"
              data-test="why"
              @click="why = !why"
            >
              {{ why ? 'Enough of the why' : 'Why this heat?' }}
            </el-button>
            <WhyHeat
              v-if="why && !stale"
              :dish="draft.dish"
              :choices="choices"
              :glaze="forecast.glaze"
            />
          </section>
          <div class="two">
            <WatchOuts :list="forecast.watch_outs" :guidance="forecast.guidance" />
            <div>
              <AllergenNote :forecast="forecast" />
              <InsideFood :forecast="forecast" />
              <DishAssumed
                :forecast="forecast"
                :dish="draft.dish"
                :choices="choices"
                :kitchen="known"
              />
            </div>
          </div>
        </div>
      </template>
    </template>
    <PlanShelf v-if="opened" :current="draft.planId" />
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
}
.stale {
  opacity: 0.45;
  transition: opacity 0.2s;
}
.glaze {
  margin-top: 30px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 40px;
  margin-top: 30px;
}
.empty .ember-button {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}
@media (max-width: 860px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 26px;
  }
}
</style>
