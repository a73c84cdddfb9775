<script setup lang="ts">
import { stopwatch } from '@/shared/format/time'
import type { Call } from './calls'

defineProps<{ call: Call; underS: number; appliance: string }>()
defineEmits<{ out: []; hush: [] }>()
</script>

<template>
  <div
    class="overlay"
    :class="call.level"
    role="alertdialog"
    aria-modal="true"
    :aria-label="call.says"
    data-test="overlay"
  >
    <p class="figure">{{ stopwatch(underS) }}</p>
    <h2>{{ call.says }}</h2>
    <p v-if="call.level === 'out'" class="then">
      Is it out? {{ appliance.charAt(0).toUpperCase() + appliance.slice(1) }} off?
    </p>
    <button type="button" class="wide-button" @click="$emit('out')">It is out</button>
    <button type="button" class="plain-button" @click="$emit('hush')">
      {{ call.level === 'out' ? 'I am watching it, leave me' : 'I am watching it' }}
    </button>
  </div>
</template>

<style scoped>
.overlay {
  position: fixed;
  inset: 0;
  z-index: 50;
  background: var(--kettle-enamel-deep);
  color: #f6f2e7;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 20px;
  padding: 24px;
  text-align: center;
}
.overlay.out {
  background: #7a1608;
}
h2 {
  font-size: clamp(3rem, 10vw, 7rem);
}
p {
  margin: 0;
  font: 700 2.4rem var(--kettle-display);
}
.then {
  font-size: 1.8rem;
}
.wide-button {
  max-width: 720px;
  min-height: 130px;
  background: #f6f2e7;
  color: #7a1608;
}
.plain-button {
  color: inherit;
  border-color: currentColor;
  min-height: 60px;
}
.plain-button:hover {
  background: rgb(255 255 255 / 15%);
}
</style>
