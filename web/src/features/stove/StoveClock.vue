<script setup lang="ts">
/** The one figure of the moment, in the picture. */
import { computed } from 'vue'
import type { Live, Step } from '@/api/client'
import { clockWords, mainClock, useLive } from '@/features/live'

const props = defineProps<{ cook: Live; step?: Step }>()
const live = useLive()
const SHORT = 5 // "59:59"
const time = computed(() => mainClock(props.cook, props.step, live.now))
</script>

<template>
  <div class="clock" role="timer" data-test="clock">
    <span class="figure main" :class="{ long: time.length > SHORT }">{{ time }}</span>
    <span class="caption figure">{{ clockWords(cook, step, live.now) }}</span>
    <slot />
  </div>
</template>

<style scoped>
.clock {
  position: absolute;
  inset: 18px auto 18px 26px;
  width: 46%;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 12px;
  pointer-events: none;
}
.main {
  font: 700 clamp(3.4rem, 9vw, 6.9rem) / 0.95 var(--kettle-display);
  letter-spacing: -0.03em;
  font-variant-numeric: tabular-nums;
}
.long {
  font-size: clamp(2.4rem, 6vw, 4.4rem);
}
.caption {
  font-size: 1.15rem;
  line-height: 1.3;
}
@media (max-width: 860px) {
  .clock {
    inset: 10px auto 10px 16px;
    width: 40%;
    gap: 6px;
  }
  .main {
    font-size: clamp(2.6rem, 13vw, 5rem);
  }
  .long {
    font-size: clamp(1.8rem, 9vw, 3.6rem);
  }
  .caption {
    font-size: 0.95rem;
  }
}
</style>
