<script setup lang="ts">
import { useLive } from './useLive'

const live = useLive()
</script>

<template>
  <p v-if="!live.sound.ready" class="sound" role="status" data-test="sound-off">
    Sound is off: tap anywhere
  </p>
</template>

<style scoped>
.sound {
  position: fixed;
  left: 50%;
  bottom: 14px;
  transform: translateX(-50%) rotate(-1deg);
  z-index: 40;
  margin: 0;
  padding: 12px 26px;
  border-radius: 999px;
  background: var(--kettle-enamel-deep);
  color: var(--kettle-chalk);
  font: 700 1.3rem var(--kettle-display);
  box-shadow: 0 10px 40px rgb(0 0 0 / 35%);
  pointer-events: none;
  white-space: nowrap;
}
@media (max-width: 640px) {
  .sound {
    font-size: 1.1rem;
  }
}
</style>
