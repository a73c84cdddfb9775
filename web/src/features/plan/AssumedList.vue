<script setup lang="ts">
import type { Dish, Forecast } from '@/api/client'
import KitchenField from './KitchenField.vue'

defineProps<{ forecast: Forecast; dish: Dish }>()
const names: Record<string, string> = {
  altitude_m: 'Height above the sea',
  pot_power_w: 'Pot heats with',
  pot_volume_l: 'Pot holds',
  pot_gauge_kpa: 'Pot pressure',
  oven_c: 'Oven at',
  broiler_w_m2: "Broiler's heat on the food",
  rack_m: "Food below the broiler's element",
  air_fryer_c: 'Air fryer at',
  hot_oven_c: 'Hot oven at',
  lid_c: 'Crisping lid at',
  grill_c: "Under the grill's lid",
}
</script>

<template>
  <section class="assumed">
    <h2>Assumed of your kitchen</h2>
    <p class="quiet">Typical values. Change one only if you know better.</p>
    <KitchenField v-for="a in forecast.assumed" :key="a.name" :name="a.name" :label="names[a.name] ?? a.name" :unit="a.unit" :typical="a.value" :stated="null" />
    <template v-for="(value, name) in dish.kitchen" :key="name">
      <KitchenField v-if="value !== null && value !== undefined" :name="name" :label="names[name] ?? name" unit="" :typical="null" :stated="value" />
    </template>
  </section>
</template>

<style scoped>
.assumed { margin-top: 26px; }
p { margin: 4px 0 8px; }
</style>
