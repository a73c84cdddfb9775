<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Problem } from '@/api/client'
import { useClock } from '@/shared/composables/useClock'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import AssumedList from './AssumedList.vue'
import ChainLine from './ChainLine.vue'
import CookSentence from './CookSentence.vue'
import InsideFood from './InsideFood.vue'
import PlanVerdict from './PlanVerdict.vue'
import SightWindow from './SightWindow.vue'
import WhyHeat from './WhyHeat.vue'
import WatchOuts from './WatchOuts.vue'
import { usePlan } from './usePlan'

const route = useRoute()
const router = useRouter()
const { draft, known, inKitchen, choices, forecast, problem, faults, open, refresh } = usePlan()
const now = useClock(10_000)
const loading = ref(true)
const starting = ref(false)
const why = ref(false)
const refused = ref<Problem>()
const stale = computed(() => Boolean(problem.value))

async function load() {
  loading.value = true
  await open(route.params.id ? Number(route.params.id) : undefined)
  loading.value = false
}
onMounted(load)
watch(() => route.params.id, load)

async function start() {
  if (!draft.dish) return
  starting.value = true
  const { data, problem: no } = await ask(() =>
    api.POST('/api/v1/cooks', { body: { dish: inKitchen(draft.dish!) } }),
  )
  starting.value = false
  refused.value = no
  if (data) void router.push(`/stove/${data.id}`)
}
</script>

<template>
  <div class="page plan">
    <h1 class="visually-hidden">Plan</h1>
    <p v-if="loading && !forecast" class="quiet" role="status">Working out the times…</p>
    <ProblemNote
      v-if="problem && !problem.errors?.length"
      :problem="problem"
      again
      @again="choices ? refresh() : load()"
    />
    <section v-if="!loading && !draft.dish" class="empty">
      <h2>No dish yet.</h2>
      <p>Nine taps make one.</p>
      <RouterLink to="/" class="ember-button">What is on the counter?</RouterLink>
    </section>
    <template v-if="draft.dish && choices">
      <CookSentence :dish="draft.dish" :choices="choices" :faults="faults" :now="now" />
      <template v-if="forecast">
        <div :class="{ stale }" :aria-busy="stale">
          <PlanVerdict
            :forecast="forecast"
            :serve-at="draft.dish.serve_at ?? null"
            :now="now"
            :blocked="stale || starting"
            @start="start"
          />
          <ProblemNote v-if="refused" :problem="refused" />
          <ChainLine :forecast="forecast" />
          <section class="glaze">
            <h2>Under the heat</h2>
            <SightWindow :glaze="forecast.glaze" />
            <GlazeStrip :glaze="forecast.glaze" />
            <button
              type="button"
              class="plain-button no-print"
              :aria-expanded="why"
              data-test="why"
              @click="why = !why"
            >
              {{ why ? 'Enough of the why' : 'Why this heat?' }}
            </button>
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
              <InsideFood :forecast="forecast" />
              <AssumedList :forecast="forecast" :dish="draft.dish" :kitchen="known" />
            </div>
          </div>
        </div>
      </template>
    </template>
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
