<script setup lang="ts">
import type { EventBody, Live } from '@/api/client'
import { clock, duration } from '@/shared/format/time'

/** The way back that a failed check opened, and the others there are. */
defineProps<{ back: NonNullable<Live['back']> }>()
defineEmits<{ told: [body: EventBody] }>()
</script>

<template>
  <div v-if="back.ways.length > 1" class="back" role="group" aria-label="Another way back">
    <el-button
      v-for="(way, i) in back.ways"
      :key="way.heat"
      class="plain-button"
      :class="{ taken: i === back.way }"
      :aria-pressed="i === back.way"
      :data-test="`way-${way.heat}`"
      @click="$emit('told', { kind: 'way', step: back.step, way: i })"
    >
      {{ way.says }}: {{ duration(way.minutes * 60) }}, eat {{ clock(way.eat_at) }}
    </el-button>
  </div>
</template>

<style scoped>
.back {
  display: grid;
  gap: 8px;
}
.plain-button {
  justify-content: start;
  white-space: normal;
  text-align: left;
}
.taken {
  border-color: var(--kettle-ember);
  border-width: 4px;
}
</style>
