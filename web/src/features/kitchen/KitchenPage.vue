<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { api, ask, type Effect } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useChoices, useDraft } from '@/features/plan'
import AsideNote from '@/shared/ui/AsideNote.vue'
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
  open,
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
const { inKitchen } = useKitchenFigures()
const effects = shallowRef<Effect[]>([])
const asking = ref(true)
const kind = ref('')
const bodies = computed(() =>
  (kitchen.value?.appliances ?? []).filter((a) => a.id !== chosen.value && !a.given.body_id),
)
// What each assumed figure is worth on tonight's plan; asked again when something is entered.
watch([kitchen, () => plan.dish], async () => {
  if (!kitchen.value || !plan.dish) return
  const { data } = await ask(() =>
    api.POST('/api/v1/forecasts/effects', { body: inKitchen(plan.dish!) }),
  )
  effects.value = data?.effects ?? []
})
onMounted(async () => {
  await open()
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
        <label for="add-kind">Add</label>
        <select id="add-kind" v-model="kind" data-test="add-kind">
          <option value="">an appliance…</option>
          <option v-for="k in kitchen.kinds" :key="k.key" :value="k.key">{{ k.name }}</option>
        </select>
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
          :dish="plan.dish"
        />
      </div>
      <SettingsStrip :settings="kitchen.settings" :gear="kitchen.gear" @settle="settle" />
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
label {
  font-weight: 700;
}
select {
  height: 52px;
  font-size: 1.05rem;
  border-radius: 12px;
  border: 2px solid var(--kettle-line);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  padding: 0 12px;
  max-width: 60vw;
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
