<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { OtherDevice } from '@/features/door'
import { useChoices, useDraft, useEffects } from '@/features/plan'
import AsideNote from '@/shared/ui/AsideNote.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ApplianceSheet from './ApplianceSheet.vue'
import ApplianceShelf from './ApplianceShelf.vue'
import CalibratePanel from './CalibratePanel.vue'
import FitPanel from './FitPanel.vue'
import SettingsStrip from './SettingsStrip.vue'
import { useKitchen } from './useKitchen'

const {
  kitchen,
  problem,
  chosen,
  appliance,
  load,
  again,
  add,
  keep,
  drop,
  observe,
  forget,
  settle,
} = useKitchen()
const choices = useChoices().data
const plan = useDraft()
// What each assumed figure is worth on tonight's plan; asked again when something is entered.
const effects = useEffects(
  () => plan.chain ?? undefined,
  () => kitchen.value !== undefined,
)
const asking = ref(true)
const kind = ref('')
const kinds = computed(() =>
  (kitchen.value?.kinds ?? []).map((k) => ({ key: k.key, text: k.name })),
)
const bodies = computed(() =>
  (kitchen.value?.appliances ?? []).filter((a) => a.id !== chosen.value && !a.given.body_id),
)
onMounted(async () => {
  await load(true)
  asking.value = false
})

async function put() {
  const found = kitchen.value?.kinds.find((k) => k.key === kind.value)
  if (found) await add(found.key, found.name)
  kind.value = ''
}
</script>

<template>
  <div class="page">
    <div class="top">
      <h1>Kitchen</h1>
      <div v-if="kitchen" class="add">
        <PickField
          v-model="kind"
          beside
          label="Add"
          placeholder="an appliance…"
          :options="kinds"
          data-test="add-kind"
        />
        <el-button class="ember-button" :disabled="!kind" data-test="add-appliance" @click="put">
          Add
        </el-button>
      </div>
    </div>
    <ProblemNote v-if="problem" :problem="problem" :again="problem.status === 0" @again="again" />
    <p v-if="asking && !kitchen" class="quiet" role="status">Looking into the cupboards…</p>
    <template v-if="kitchen">
      <AsideNote :records="kitchen.aside ?? []" />
      <section v-if="!kitchen.appliances.length" class="empty">
        <h2>Nothing entered, and nothing has to be.</h2>
        <p>
          Every plan works with typical appliances, marked “assumed”. Add the one that the plan is
          least sure of, often the broiler.
        </p>
      </section>
      <ApplianceShelf
        v-else
        :appliances="kitchen.appliances"
        :chosen="chosen"
        @choose="chosen = $event"
      />
      <div v-if="appliance" :key="appliance.id" class="one">
        <ApplianceSheet
          :appliance="appliance"
          :bodies="bodies"
          :effects="effects"
          @keep="keep(appliance!, $event)"
          @drop="drop(appliance!)"
        />
        <CalibratePanel
          v-if="appliance.finish"
          class="side"
          :appliance="appliance"
          :observe="(body) => observe(appliance!, body)"
          @forget="(id, again) => forget(id, again)"
        />
        <FitPanel
          v-if="appliance.inside && choices"
          class="wide"
          :appliance="appliance"
          :inside="appliance.inside"
          :choices="choices"
          :food="plan.chain?.food ?? null"
        />
      </div>
      <SettingsStrip :settings="kitchen.settings" :gear="kitchen.gear" @settle="settle" />
      <OtherDevice />
    </template>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  gap: 24px;
  align-items: end;
  justify-content: space-between;
  flex-wrap: wrap;
  margin-bottom: 12px;
}
h1 {
  font-size: 2rem;
}
.add {
  display: flex;
  gap: 10px;
  align-items: center;
}
.one {
  min-width: 0;
  display: grid;
  gap: 34px;
  margin-top: 24px;
  grid-template-columns: minmax(0, 1fr);
  align-items: start;
}
@media (min-width: 1000px) {
  .one:has(.side) {
    grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
    gap: 40px 56px;
  }
  .wide {
    grid-column: 1 / -1;
  }
}
.empty h2 {
  margin-bottom: 8px;
}
@media (max-width: 640px) {
  .add {
    flex-wrap: wrap;
  }
}
</style>
