<script setup lang="ts">
/** Food in a slow heat, tried with a skewer: one tap says how it felt, a line what follows. */
import type { EventBody, Live } from '@/api/client'

const props = defineProps<{
  feel: NonNullable<Live['feel']>
  /** Of simulated food: what a skewer finds now. */
  finds?: string
}>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const FEELS = [
  { tender: true, text: 'slides in', test: 'felt-tender' },
  { tender: false, text: 'resists', test: 'felt-tough' },
]
const tell = (tender: boolean) => emit('told', { kind: 'felt', step: props.feel.step, tender })
</script>

<template>
  <div class="feel" role="group" aria-label="A skewer">
    <span>A skewer</span>
    <el-button
      v-for="one in FEELS"
      :key="one.test"
      class="plain-button"
      :class="{ told: feel.tender === one.tender }"
      :data-test="one.test"
      @click="tell(one.tender)"
    >
      {{ one.text }}
    </el-button>
    <p v-if="finds" class="quiet" data-test="finds">{{ finds }}</p>
    <p v-if="feel.says" class="figure" role="status" data-test="feel">
      {{ feel.says }}<template v-if="!feel.ready"> I reckon how long.</template>
    </p>
  </div>
</template>

<style scoped>
.feel {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  font-weight: 700;
  margin-bottom: 10px;
}
.plain-button {
  min-height: 60px;
  min-width: 120px;
  margin: 0;
  font-size: 1.1rem;
  font-weight: 700;
}
.told {
  border-style: double;
  border-width: 5px;
}
p {
  margin: 0;
  width: 100%;
}
</style>
