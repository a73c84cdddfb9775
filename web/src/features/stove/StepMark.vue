<script setup lang="ts">
import type { Step } from '@/api/client'

/** How a step stands, drawn: the form differs, not only the colour. */
defineProps<{ step: Step }>()
</script>

<template>
  <svg
    viewBox="0 0 22 22"
    width="22"
    height="22"
    aria-hidden="true"
    :class="step.gate || step.state"
  >
    <template v-if="step.gate === 'failed'">
      <circle cx="11" cy="11" r="9" class="line" />
      <path d="M7 7l8 8M15 7l-8 8" class="line" />
    </template>
    <template v-else-if="step.state === 'confirmed'">
      <circle cx="11" cy="11" r="10" fill="currentColor" />
      <path d="M6 11l3.5 4L16 7" class="tick" />
    </template>
    <template v-else-if="step.state === 'estimated'">
      <circle cx="11" cy="11" r="9" class="dash" />
      <path d="M6 9q2.5-3 5 0t5 0M6 14q2.5-3 5 0t5 0" class="line" />
    </template>
    <template v-else-if="step.state === 'unknown'">
      <rect x="2" y="2" width="18" height="18" class="dash" />
      <text x="11" y="16" text-anchor="middle">?</text>
    </template>
    <path
      v-else-if="step.state === 'current' || step.state === 'running'"
      d="M4 2l15 9-15 9z"
      fill="currentColor"
    />
    <circle v-else cx="11" cy="11" r="8" class="line" />
  </svg>
</template>

<style scoped>
svg {
  color: var(--kettle-ink-soft);
}
.line,
.dash,
.tick {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linecap: round;
}
.dash {
  stroke-dasharray: 3 3;
}
.tick {
  stroke: var(--kettle-sheet);
}
text {
  font: 700 14px var(--kettle-text);
  fill: currentColor;
}
.confirmed,
.passed {
  color: var(--kettle-good);
}
.estimated {
  color: var(--kettle-enamel-soft);
}
.unknown,
.skipped {
  color: var(--kettle-careful);
}
.failed {
  color: var(--kettle-stop);
}
.current,
.running,
.open {
  color: var(--kettle-ember);
}
</style>
