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
  top: 45%;
  transform: translate(-50%, -50%) rotate(-2deg);
  z-index: 40;
  margin: 0;
  padding: 18px 34px;
  border-radius: 999px;
  background: var(--kettle-enamel-deep);
  color: #f6f2e7;
  font: 700 1.6rem var(--kettle-display);
  box-shadow: 0 10px 40px rgb(0 0 0 / 35%);
  pointer-events: none;
  white-space: nowrap;
}
@media (max-width: 640px) {
  .sound {
    font-size: 1.2rem;
  }
}
</style>
