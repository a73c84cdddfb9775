<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Choices, Dish, Glaze, Setting } from '@/api/client'
import { duration } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import HeatMap from './HeatMap.vue'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useDraft } from './draft'
import { useWhy } from './useWhy'

/** Why this heat: the map of the glaze, the advice with its reasons, and two strips side by side. */
const props = defineProps<{ dish: Dish; choices: Choices; glaze: Glaze }>()
const draft = useDraft()
const { inKitchen } = useKitchenFigures()
const { explorer, advice, beside, besideKey, problem, waiting } = useWhy(
  () => inKitchen(props.dish),
  (finish) => props.choices.finishes.find((f) => f.key === finish)?.sides ?? 1,
)
const site = ref<'face' | 'edge'>('face')

const others = computed(() => [
  { key: '', text: 'nothing' },
  ...props.choices.finishes
    .filter((f) => f.key !== props.dish.finish)
    .map((f) => ({ key: `finish:${f.key}`, text: f.place })),
  ...props.choices.sauces
    .filter((s) => s.key !== props.dish.sauce)
    .map((s) => ({ key: `sauce:${s.key}`, text: s.name })),
])

function pick(heat: number) {
  draft.change({ kitchen: { [explorer.value!.axis]: heat } } as unknown as Partial<Dish>)
}

function take(setting: Setting) {
  draft.change(setting.change as Partial<Dish>)
}
</script>

<template>
  <section class="why" aria-label="Why this heat">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="explorer">
      <div class="head">
        <p>
          Time runs to the right, the fiercest heat is on top. The outlined row is yours; choose
          another by a tap, or with the up and down keys.
        </p>
        <el-segmented
          v-model="site"
          class="pick-one"
          aria-label="Which site"
          :options="['face', 'edge']"
        />
      </div>
      <HeatMap :explorer="explorer" :site="site" :caramelises="glaze.caramelises" @pick="pick" />
    </template>
    <p v-if="waiting" class="quiet" role="status">Trying other settings…</p>
    <template v-if="advice">
      <h3>What would be wider</h3>
      <p v-if="advice.none_safe" class="none">{{ advice.none_safe }}</p>
      <ol class="settings figure">
        <li v-for="(setting, i) in [advice.choice, ...advice.runners]" :key="setting.reason">
          <span>{{ setting.reason }}</span>
          <el-button
            :class="i === 0 ? 'ember-button' : 'plain-button'"
            :data-test="`advice-${i}`"
            @click="take(setting)"
          >
            Use it
          </el-button>
        </li>
      </ol>
      <h3>Last chance to change</h3>
      <ul class="exits figure">
        <li v-for="e in advice.exits" :key="e.do">
          <b>{{ duration(e.before_serving_s) }}</b> before serving: {{ e.do }}
          <span class="quiet">({{ e.why }})</span>
        </li>
      </ul>
    </template>
    <PickField
      v-model="besideKey"
      beside
      label="Side by side with"
      :options="others"
      data-test="beside"
    />
    <GlazeStrip v-if="beside" :glaze="beside" compact />
  </section>
</template>

<style scoped>
.why {
  margin: 6px 0 20px;
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.head {
  display: flex;
  gap: 24px;
  align-items: center;
}
.head p {
  margin: 0;
  flex: 1;
}
.settings {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 12px;
}
.settings li {
  display: flex;
  gap: 20px;
  align-items: center;
}
.settings span {
  flex: 1;
}
.settings button {
  min-width: 120px;
}
.none {
  border-left: 6px solid var(--kettle-careful);
  padding-left: 14px;
  margin: 0;
}
.exits {
  margin: 0;
  padding-left: 20px;
}
h3 {
  font-size: 1.1rem;
  margin-top: 8px;
}
@media (max-width: 640px) {
  .head,
  .settings li {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
