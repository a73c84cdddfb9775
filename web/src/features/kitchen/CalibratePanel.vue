<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import {
  api,
  fetched,
  type Appliance,
  type Calibrated,
  type KeptSauce,
  type ObservationBody,
  type Problem,
} from '@/api/client'
import { useDraft } from '@/features/plan'
import { useClock } from '@/shared/composables/useClock'
import { stopwatch } from '@/shared/format/time'
import MahoganyMoved from '@/shared/ui/MahoganyMoved.vue'
import PickField from '@/shared/ui/PickField.vue'
import SignsSeen from '@/shared/ui/SignsSeen.vue'
import { capital } from '@/shared/format/words'
import FactorBar from './FactorBar.vue'

/** Watch a little glaze under this heat for three minutes: what it shows, and when, tells how fierce the heat is. */
const plan = useDraft()
const props = defineProps<{
  appliance: Appliance
  observe: (body: ObservationBody) => Promise<Calibrated | undefined>
}>()
const emit = defineEmits<{ forget: [id: number, again: boolean] }>()
const GROUNDS = [
  { key: 'scout', text: 'tonight’s glaze on damp bread (teaches most)' },
  { key: 'bread', text: 'plain damp bread (no glaze at hand)' },
  { key: 'syrup', text: 'sugar syrup on damp bread (7 parts sugar, 3 parts water)' },
  { key: 'food', text: 'food that you do not follow on the Stove' },
] as const
const SIGNS = ['bubbling', 'amber at the edges', 'amber', 'dark'] as const
const ground = ref<ObservationBody['ground']>('scout')
const jars = useQuery<KeptSauce[], Problem>({
  queryKey: ['sauces', 'glazes'],
  queryFn: async () => (await fetched(api.GET('/api/v1/sauces'))).sauces,
  retry: false,
})
const sauces = computed(() => (jars.data.value ?? []).filter((s) => s.document.kind === 'glaze'))
const sauce = ref<number | null>(null)
const began = ref<number | null>(null)
const told = shallowRef<Calibrated>()
const seen = ref<string[]>([])
const now = useClock(250)
const under = computed(() =>
  began.value === null ? 0 : Math.max(0, (now.value.getTime() - began.value) / 1000),
)
const shown = computed(() => SIGNS.filter((s) => !(ground.value === 'bread' && s === 'bubbling')))

// Tonight's own glaze first, else the first that there is.
watch(
  sauces,
  (found) => {
    const tonight = (plan.chain?.layers ?? []).map((layer) => layer.sauce)
    const ids = tonight.map((one) => (one && typeof one === 'object' ? one.sauce_id : null))
    const own = ids.find((id) => id !== null && id !== undefined)
    sauce.value ??= (found.find((s) => s.id === own) ?? found[0])?.id ?? null
  },
  { immediate: true },
)

function start() {
  began.value = Date.now()
  seen.value = []
  told.value = undefined
}

async function see(sign: (typeof SIGNS)[number]) {
  const at = Math.max(1, Math.round((Date.now() - began.value!) / 100) / 10)
  const made = await props.observe({
    ground: ground.value,
    sign,
    at_s: at,
    sauce_id: ground.value === 'scout' || ground.value === 'food' ? sauce.value : null,
    coat_mm: 0.5,
  })
  if (!made) return
  told.value = made
  seen.value = [...seen.value, sign]
}
</script>

<template>
  <section class="calibrate" aria-label="How fierce it is">
    <h3>How fierce is it?</h3>
    <p class="says">{{ capital(appliance.heat_says) }}.</p>
    <FactorBar :history="appliance.history" />
    <div v-if="began === null" class="set">
      <PickField
        v-model="ground"
        label="Under the heat goes"
        :options="GROUNDS"
        data-test="ground"
      />
      <PickField
        v-if="(ground === 'scout' || ground === 'food') && sauces.length"
        v-model="sauce"
        label="Glaze"
        :options="sauces.map((s) => ({ key: s.id, text: s.document.name }))"
      />
      <el-button class="ember-button" data-test="scout-start" @click="start">
        It is under the heat now
      </el-button>
    </div>
    <div v-else class="watch">
      <p class="clock figure" role="timer">{{ stopwatch(under) }}</p>
      <p>Stay with it. Tap a sign when you see it:</p>
      <div class="signs">
        <el-button
          v-for="s in shown"
          :key="s"
          class="wide-button"
          :disabled="seen.includes(s)"
          :data-test="`sign-${s}`"
          @click="see(s)"
        >
          {{ s === 'dark' ? 'dark, mahogany' : s }}
        </el-button>
      </div>
      <el-button class="plain-button" @click="began = null">It is out, enough</el-button>
    </div>
    <MahoganyMoved v-if="told" :before="told.before" :after="told.after" />
    <details v-if="appliance.observations.length">
      <summary>
        {{ appliance.observations.length }} sign{{ appliance.observations.length === 1 ? '' : 's' }}
        seen
      </summary>
      <SignsSeen
        :signs="appliance.observations"
        link
        @forget="(id, again) => emit('forget', id, again)"
      />
    </details>
    <p class="quiet">
      Usual guidance: never leave food under fierce heat. Your appliance’s manual and local fire
      rules come first.
    </p>
  </section>
</template>

<style scoped>
.calibrate {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
h3 {
  font-size: 1.2rem;
}
p {
  margin: 0;
}
.says {
  font-size: 1.05rem;
}
.set {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  align-items: end;
}
.set > .pick {
  width: min(430px, 100%);
}
.clock {
  font: 700 4.2rem/1 var(--kettle-display);
  color: var(--kettle-ember);
}
.signs {
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 10px;
  margin: 10px 0;
}
.signs .wide-button {
  min-height: 84px;
  font-size: 1.35rem;
}
summary {
  cursor: pointer;
  font-weight: 700;
  min-height: 36px;
}
</style>
