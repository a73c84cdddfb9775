<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import { putOn, sauceForDish, useDraft } from '@/features/plan'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ChangedNote from '@/shared/ui/ChangedNote.vue'
import BottlePanel from './BottlePanel.vue'
import ColourLadder from './ColourLadder.vue'
import LedgerPanel from './LedgerPanel.vue'
import LineList from './LineList.vue'
import SauceFacts from './SauceFacts.vue'
import SauceShelf from './SauceShelf.vue'
import ScalePanel from './ScalePanel.vue'
import VariantPanel from './VariantPanel.vue'
import { useSauce } from './useSauce'

const sauce = useSauce()
const { draft, analysis, problem, said, kept, id, beside } = sauce
const others = computed(() => (kept.value ?? []).filter((s) => s.id !== id.value))
const plan = useDraft()
const router = useRouter()
const asking = ref(true)
const tab = ref('ladder')
const KINDS = [
  { value: 'rub', label: 'rub' },
  { value: 'marinade', label: 'marinade' },
  { value: 'braise', label: 'braising liquid' },
  { value: 'glaze', label: 'glaze' },
  { value: 'table', label: 'table sauce' },
]
const body = computed(() => ({
  ...sauce.recipe(),
  simmer: draft.value.simmer ?? null,
}))
const refused = computed(() => (problem.value?.status === 409 ? problem.value : undefined))
const simmering = computed({
  get: () => draft.value.simmer?.minutes ?? 0,
  set: (minutes: number) =>
    (draft.value.simmer =
      minutes > 0 ? { minutes, power_w: draft.value.simmer?.power_w ?? sauce.burnerW() } : null),
})
const burner = computed({
  get: () => draft.value.simmer?.power_w ?? sauce.burnerW(),
  set: (power_w: number | null) =>
    (draft.value.simmer = { minutes: simmering.value, power_w: power_w ?? sauce.burnerW() }),
})
onMounted(async () => {
  await sauce.open()
  asking.value = false
})

function download(content: string, type: string, ending: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([content], { type }))
  link.download = `${draft.value.name.replace(/[^\w-]+/g, '-').toLowerCase() || 'sauce'}.${ending}`
  link.click()
  URL.revokeObjectURL(link.href)
}

/** The recipe as a file that "From a file" takes back in. */
const save = () =>
  download(
    JSON.stringify({ format: 'kettle.sauce/1', ...draft.value }, null, 2),
    'application/json',
    'json',
  )

async function saveList() {
  const { data, problem: wrong } = await ask(() =>
    api.POST('/api/v1/sauces/lines', {
      body: { format: 'text', content: sauce.written.value.join('\n') },
    }),
  )
  if (data) download(data.csv, 'text/csv', 'csv')
  else problem.value = wrong
}

async function use() {
  if (!plan.chain) return void router.push('/')
  const { sauce: made, problem: wrong } = await sauceForDish(draft.value, id.value)
  problem.value = wrong
  if (!made) return
  plan.edit((next) => putOn(next, made))
  void router.push('/plan')
}
</script>

<template>
  <div class="page">
    <h1 class="visually-hidden">Sauces</h1>
    <SauceShelf
      v-model:search="sauce.search.value"
      :more="sauce.more.value"
      :kept="kept ?? []"
      :chosen="id"
      @take="sauce.take($event)"
      @begin="sauce.begin($event)"
      @more="sauce.furtherOn"
    />
    <AsideNote :records="sauce.aside.value" />
    <ChangedNote
      v-if="sauce.elsewhere.value"
      what="This sauce"
      @theirs="sauce.takeTheirs"
      @mine="sauce.keepMine"
    />
    <p v-if="asking" class="quiet" role="status">Opening the jars…</p>
    <div class="two">
      <section class="recipe" aria-label="Recipe">
        <input
          v-model="draft.name"
          class="name"
          aria-label="Name of the sauce"
          maxlength="80"
          data-test="sauce-name"
        />
        <el-segmented v-model="draft.kind" class="pick-one" aria-label="Kind" :options="KINDS" />
        <LineList v-model="draft.lines" :read="analysis?.lines ?? []" />
        <div class="keep">
          <el-button
            class="ember-button"
            data-test="keep"
            :disabled="!sauce.changed.value"
            @click="sauce.keep()"
          >
            {{ id ? 'Keep the change' : 'Keep it' }}
          </el-button>
          <el-button
            class="plain-button"
            :disabled="!analysis"
            data-test="use-on-dish"
            @click="use"
          >
            {{ plan.chain ? 'Put it on tonight’s dish' : 'Choose a dish for it' }}
          </el-button>
          <el-button class="plain-button" data-test="save-file" @click="save">
            Save as file
          </el-button>
          <el-button class="plain-button" data-test="save-list" @click="saveList">
            List as CSV
          </el-button>
          <el-button v-if="id" class="plain-button" data-test="drop" @click="sauce.drop()">
            Delete
          </el-button>
        </div>
        <p v-if="said" role="status">{{ said }}</p>
        <p v-if="refused" class="refused" role="alert">
          {{ refused.detail }}.
          <el-button class="plain-button" data-test="drop-anyway" @click="sauce.drop(true)">
            Delete, plans keep their copy
          </el-button>
        </p>
        <ProblemNote
          v-else-if="problem"
          :problem="problem"
          :again="problem.status === 0"
          @again="sauce.again()"
        />
      </section>
      <div v-if="analysis">
        <SauceFacts :analysis="analysis" />
        <div class="made">
          <NumberField
            :model-value="draft.for_kg ?? null"
            label="For meat"
            unit="kg"
            :step="0.1"
            placeholder="1.5"
            @update:model-value="draft.for_kg = $event"
          />
          <NumberField
            v-if="draft.kind !== 'rub'"
            v-model="simmering"
            label="Simmered"
            unit="min"
            :step="1"
          />
          <NumberField
            v-if="draft.simmer"
            v-model="burner"
            label="On a burner of"
            unit="W"
            :step="100"
          />
        </div>
        <div
          v-if="draft.for_kg && others.length"
          class="beside"
          role="group"
          aria-label="Also on this meat"
        >
          <span>Also on this meat:</span>
          <el-button
            v-for="s in others"
            :key="s.id"
            class="plain-button"
            :aria-pressed="beside.includes(s.id)"
            :class="{ on: beside.includes(s.id) }"
            :data-test="`beside-${s.id}`"
            @click="
              beside = beside.includes(s.id) ? beside.filter((n) => n !== s.id) : [...beside, s.id]
            "
          >
            {{ beside.includes(s.id) ? '✓ ' : '' }}{{ s.document.name }}
          </el-button>
        </div>
      </div>
      <section v-else-if="!asking && !sauce.written.value.length" class="empty">
        <h2>An empty jar.</h2>
        <p>
          Write the first line as you would on paper: “1 1/2 cups ketchup”, “a knob of butter”,
          “salt to taste”.
        </p>
      </section>
      <p v-else-if="!asking && !problem" class="quiet" role="status">Reading the lines…</p>
    </div>
    <el-tabs v-if="analysis" v-model="tab" class="more">
      <el-tab-pane label="How it browns" name="ladder">
        <template v-if="analysis.ladder.length">
          <p class="first">
            {{ analysis.burns_first }}
            <template v-if="analysis.calm.length"
              ><b>What would calm it:</b>
              {{
                analysis.calm
                  .map(
                    (c) =>
                      `${c.do} (edges burn ${Math.floor(c.later_s / 60)}:${String(c.later_s % 60).padStart(2, '0')} later)`,
                  )
                  .join('; ')
              }}.</template
            >
          </p>
          <ColourLadder :ladder="analysis.ladder" :dials="analysis.dials" />
        </template>
        <p v-else>Too thin to stay on food: it runs off. Simmer it down, or use it in the pot.</p>
      </el-tab-pane>
      <el-tab-pane label="How much" name="scale" lazy
        ><ScalePanel
          :key="id ?? 0"
          :recipe="sauce.recipe()"
          :for-kg="draft.for_kg ?? null"
          :lines="sauce.written.value"
          @use="draft.lines = $event"
      /></el-tab-pane>
      <el-tab-pane label="From bowl to plate" name="ledger" lazy
        ><LedgerPanel
          :key="id ?? 0"
          :batch-g="analysis.yield_g"
          :moves="draft.moves ?? []"
          :kind="draft.kind ?? 'glaze'"
          @change="draft.moves = $event"
      /></el-tab-pane>
      <el-tab-pane label="Variations" name="variants" lazy
        ><VariantPanel :key="id ?? 0" :body="body" :analysis="analysis" @use="draft.lines = $event"
      /></el-tab-pane>
      <el-tab-pane label="One of your own" name="bottle" lazy
        ><BottlePanel
          :own="draft.own ?? []"
          @add="draft.own = [...(draft.own ?? []).filter((o) => o.key !== $event.key), $event]"
          @remove="draft.own = (draft.own ?? []).filter((o) => o.key !== $event)"
      /></el-tab-pane>
    </el-tabs>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 0.92fr);
  gap: 48px;
  margin-top: 18px;
  align-items: start;
}
.name {
  width: 100%;
  border: 0;
  background: transparent;
  color: var(--kettle-ink);
  font: 700 2rem/1.2 var(--kettle-display);
  padding: 0;
  min-height: 48px;
}
.pick-one {
  margin: 2px 0 8px;
}
.made,
.keep {
  display: flex;
  gap: 12px 20px;
  flex-wrap: wrap;
  margin-top: 18px;
  align-items: center;
}
.beside {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
  margin-top: 14px;
}
.on {
  background: var(--kettle-enamel);
  color: var(--kettle-paper);
  border-color: var(--kettle-enamel);
}
html.dark .on {
  color: var(--kettle-ink);
}
.more {
  margin-top: 30px;
}
.more :deep(.el-tabs__item) {
  font-size: 1.02rem;
  min-height: 44px;
  color: var(--kettle-ink-soft);
}
.more :deep(.el-tabs__item.is-active) {
  color: var(--kettle-ink);
  font-weight: 700;
}
.first {
  margin: 4px 0 14px;
  max-width: 92ch;
}
.refused {
  border-left: 6px solid var(--kettle-careful);
  padding-left: 14px;
}
.empty h2 {
  margin-bottom: 8px;
}
/* Beside a long list the jar stays in view, and so does the end of a column taller than the window. */
@media (min-width: 901px) {
  .two > :last-child {
    position: sticky;
    top: min(76px, calc(100vh - 900px));
  }
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 26px;
  }
}
</style>
