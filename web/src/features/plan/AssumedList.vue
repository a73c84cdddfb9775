<script setup lang="ts">
import { computed } from 'vue'
import type { Dish, Forecast, Kitchen } from '@/api/client'
import { effectWords, FIGURE_WORDS, knownWords } from './effects'
import KitchenField from './KitchenField.vue'
import { useEffects } from './useEffects'

const props = defineProps<{ forecast: Forecast; dish: Dish; kitchen?: Kitchen }>()
const effects = useEffects(
  () => props.dish,
  () =>
    [
      ...props.forecast.assumed.map((a) => a.name),
      props.dish.finish,
      props.dish.tenderise,
      props.dish.state,
    ].join(),
)
const own = computed(() =>
  Object.entries(props.dish.kitchen ?? {}).filter(
    ([name, value]) => name in FIGURE_WORDS && value !== null && value !== undefined,
  ),
)
const known = computed(() => {
  const stated = new Set(own.value.map(([name]) => name))
  const kept = Object.entries(props.kitchen?.figures ?? {}).filter(([name]) => !stated.has(name))
  return knownWords(Object.fromEntries(kept))
})
const order = computed(() => {
  const place = (name: string) => {
    const i = effects.value.findIndex((e) => e.name === name)
    return i < 0 ? 99 : i
  }
  return [...props.forecast.assumed].sort((a, b) => place(a.name) - place(b.name))
})

const seen = computed(() => props.kitchen?.learnt[props.dish.finish ?? 'broiler']?.seen ?? 0)
</script>

<template>
  <section class="assumed">
    <h2>Assumed of your kitchen</h2>
    <p class="quiet">
      Typical values, the weightiest first. Change one only if you know better, or
      <RouterLink to="/kitchen">enter the appliance once</RouterLink>.
    </p>
    <template v-for="a in order" :key="a.name">
      <KitchenField
        :name="a.name"
        :label="FIGURE_WORDS[a.name] ?? a.name"
        :unit="a.unit"
        :typical="a.value"
        :stated="null"
      />
      <p
        v-if="effectWords(effects.find((e) => e.name === a.name))"
        class="effect"
        :class="{ ask: effects.find((e) => e.name === a.name)?.ask }"
      >
        {{ effectWords(effects.find((e) => e.name === a.name)) }}
      </p>
    </template>
    <KitchenField
      v-for="[name, value] in own"
      :key="name"
      :name="name"
      :label="FIGURE_WORDS[name]!"
      unit=""
      :typical="null"
      :stated="value"
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
  margin: -6px 0 6px;
  font-size: 0.95rem;
  color: var(--kettle-ink-soft);
}
.effect.ask {
  color: var(--kettle-careful);
  font-weight: 700;
}
</style>
