<script setup lang="ts">
import type { ChainForecast } from '@/api/client'

/** What is in it that somebody may not eat. */
defineProps<{ forecast: ChainForecast }>()
</script>

<template>
  <section v-if="forecast.allergens.length || forecast.allergens_unknown.length">
    <h2>Allergens</h2>
    <p v-if="forecast.allergens.length" data-test="allergens">
      <b>Contains {{ forecast.allergens.join(', ') }}.</b>
    </p>
    <p v-if="forecast.allergens_unknown.length" class="unknown">
      Not known of: {{ forecast.allergens_unknown.join('; ') }}.
    </p>
    <p class="quiet">Read the labels of what you use.</p>
  </section>
</template>

<style scoped>
section {
  margin-top: 30px;
}
p {
  margin: 6px 0;
}
.unknown {
  color: var(--kettle-careful);
}
</style>
