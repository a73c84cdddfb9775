<script setup lang="ts">
import type { Schedule } from '@/api/client'

/** What to buy, the same thing added up. */
defineProps<{ shopping: Schedule['shopping'] }>()
</script>

<template>
  <section aria-label="To buy" data-test="meal-buy">
    <h2>To buy</h2>
    <ul>
      <li v-for="one in shopping" :key="one.name" :title="one.users.join(', ')">
        <b class="figure">{{ one.amount }}</b> {{ one.name }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 10px 0 20px;
  padding: 0;
  columns: 3 220px;
  column-gap: 40px;
}
li {
  padding: 4px 0;
  break-inside: avoid;
}
</style>
