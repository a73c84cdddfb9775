<script setup lang="ts">
import type { Observation } from '@/api/client'
import { date, stopwatch } from '@/shared/format/time'

/** Signs that an appliance is judged by; each can be forgotten and counted again. */
defineProps<{ signs: Observation[]; link?: boolean }>()
defineEmits<{ forget: [id: number, again: boolean] }>()
const GROUND: Record<string, string> = { food: 'on food', scout: 'scout' }
const words = (o: Observation) =>
  [`${o.sign} at ${stopwatch(o.at_s)}`, GROUND[o.ground], o.sauce].filter(Boolean).join(', ')
</script>

<template>
  <ul class="figure">
    <li v-for="o in signs" :key="o.id" :class="{ gone: o.forgotten }">
      <span>
        <RouterLink v-if="link && o.cook_id" :to="`/log/${o.cook_id}`">
          {{ date(o.made_at) }}</RouterLink><template v-else>{{ date(o.made_at) }}</template
        >: {{ words(o) }}
      </span>
      <el-button
        class="plain-button"
        :data-test="`forget-${o.id}`"
        @click="$emit('forget', o.id, o.forgotten)"
      >
        {{ o.forgotten ? 'count it again' : 'forget it' }}
      </el-button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: flex;
  gap: 14px;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--kettle-line);
  padding: 6px 0;
}
li .plain-button {
  flex: none;
}
.gone span {
  text-decoration: line-through;
  color: var(--kettle-ink-soft);
}
</style>
