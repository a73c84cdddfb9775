<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Assumed, Effect, Figures, Kitchen } from '@/api/client'
import { effectWords, knownWords, matters, weight } from './effects'
import KitchenField from './KitchenField.vue'

/** What is assumed of the kitchen, the weightiest first; what hardly moves supper is folded away. */
const props = defineProps<{
  assumed: Assumed[]
  /** What the plan itself says of its kitchen. */
  stated: Figures
  /** All figures, with their words. */
  figures: Assumed[]
  effects: Effect[]
  kitchen?: Kitchen
  /** Signs that the calibration of this heat rests on. */
  seen: number
}>()
defineEmits<{ put: [name: string, value: number | string | null] }>()
const all = ref(false)
const effectOf = (name: string) => props.effects.find((one) => one.name === name)
const own = computed(() =>
  Object.entries(props.stated ?? {}).flatMap(([name, value]) => {
    const row = props.figures.find((one) => one.name === name)
    return row && value !== null && value !== undefined ? [{ ...row, value }] : []
  }),
)
const known = computed(() => {
  const stated = new Set(own.value.map((one) => one.name))
  const kept = Object.entries(props.kitchen?.figures ?? {}).filter(([name]) => !stated.has(name))
  return knownWords(Object.fromEntries(kept), props.figures)
})
const order = computed(() =>
  [...props.assumed].sort((a, b) => weight(effectOf(b.name)) - weight(effectOf(a.name))),
)
/** Until it is known what they are worth, all of them. */
const shown = computed(() =>
  all.value || !props.effects.length
    ? order.value
    : order.value.filter((one) => matters(effectOf(one.name))),
)
const folded = computed(() => order.value.length - shown.value.length)
</script>

<template>
  <section class="assumed">
    <h2>Assumed of your kitchen</h2>
    <p class="quiet">
      Typical values, the weightiest first. Change one only if you know better, or
      <RouterLink to="/kitchen">enter the appliance once</RouterLink>.
    </p>
    <template v-for="one in shown" :key="one.name">
      <KitchenField
        :name="one.name"
        :label="one.label"
        :unit="one.unit"
        :typical="one.value"
        :stated="null"
        @put="$emit('put', one.name, $event)"
      />
      <p
        v-if="effectWords(effectOf(one.name))"
        class="effect"
        :class="{ ask: effectOf(one.name)?.ask }"
      >
        {{ effectWords(effectOf(one.name)) }}
      </p>
    </template>
    <el-button v-if="folded" class="plain-button" data-test="assumed-more" @click="all = true">
      {{ folded }} more hardly move{{ folded === 1 ? 's' : '' }} supper
    </el-button>
    <KitchenField
      v-for="one in own"
      :key="one.name"
      :name="one.name"
      :label="one.label"
      :unit="one.unit"
      :typical="null"
      :stated="one.value"
      @put="$emit('put', one.name, $event)"
    />
    <p v-if="known" class="quiet known">From your kitchen: {{ known }}.</p>
    <p v-if="seen" class="quiet">
      How fierce this heat is: from {{ seen }} sign{{ seen === 1 ? '' : 's' }} that you saw.
    </p>
  </section>
</template>

<style scoped>
.assumed {
  margin-top: 26px;
}
p {
  margin: 4px 0 8px;
}
.effect {
  margin: 2px 0 8px;
  font-size: 0.95rem;
  color: var(--kettle-ink-soft);
}
.effect.ask {
  color: var(--kettle-careful);
  font-weight: 700;
}
</style>
