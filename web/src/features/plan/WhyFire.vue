<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Chain, ChainFire, Choices, Setting } from '@/api/client'
import { duration } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import HeatMap from './HeatMap.vue'
import { useDraft } from './draft'
import { sauceUsed } from './otherFire'
import { find } from './stages'
import { useWhy } from './useWhy'

/** Why this heat: the map of its film, the advice with its reasons, and two strips side by side. */
const props = defineProps<{ fire: ChainFire; chain: Chain; choices: Choices; held: boolean }>()
const draft = useDraft()
const { explorer, advice, beside, besideKey, problem, waiting, fresh } = useWhy(
  () => props.chain,
  () => props.fire.stage,
)
const site = ref<'face' | 'edge'>('face')
const found = computed(() => find(props.chain, props.fire.stage))
const others = computed(() => {
  const sauce = found.value && sauceUsed(found.value.list, found.value.place)
  return [
    { key: '', text: 'nothing' },
    ...props.choices.heats
      .filter((one) => one.fierce && one.key !== props.fire.heat)
      .map((one) => ({ key: `heat:${one.key}`, text: one.name })),
    ...(sauce ? props.choices.sauces : []).map((one) => ({
      key: `sauce:${one.key}`,
      text: one.name,
    })),
  ]
})

function pick(dial: number) {
  const stage = found.value?.list[found.value.place]
  if (stage) draft.replaceStage(props.fire.stage, { ...stage, dial } as typeof stage)
}
const take = (setting: Setting) => draft.patch(setting.patch)
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
      <HeatMap
        :explorer="explorer"
        :site="site"
        :caramelises="fire.glaze.caramelises"
        @pick="pick"
      />
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
            :disabled="held || !fresh"
            :data-test="`advice-${i}`"
            @click="take(setting)"
          >
            Use it
          </el-button>
        </li>
      </ol>
      <template v-if="advice.exits.length">
        <h3>Last chance to change</h3>
        <ul class="exits figure">
          <li v-for="e in advice.exits" :key="e.do">
            <b>{{ duration(e.before_serving_s) }}</b> before serving: {{ e.do }}
            <span class="quiet">({{ e.why }})</span>
          </li>
        </ul>
      </template>
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
