<script setup lang="ts">
import { computed, useId } from 'vue'
import type { CookSummary } from '@/api/client'
import { stopwatch } from '@/shared/format/time'

const props = defineProps<{ strip: NonNullable<CookSummary['strip']>; live: boolean }>()
const out = computed(() => {
  if (props.strip.pulled_s != null) return `out after ${stopwatch(props.strip.pulled_s)}`
  return props.live ? 'not out yet' : 'nobody said when it came out'
})
const id = useId()
</script>

<template>
  <span class="strip">
    <svg viewBox="0 0 400 40" preserveAspectRatio="none" role="img" :aria-label="`Finish: ${out}`">
      <defs>
        <linearGradient
          v-for="site in ['face', 'edge'] as const"
          :id="`${id}${site}`"
          :key="site"
          x1="0"
          x2="1"
        >
          <stop
            v-for="(colour, i) in strip[site]"
            :key="i"
            :offset="i / Math.max(1, strip[site].length - 1)"
            :stop-color="colour"
          />
        </linearGradient>
      </defs>
      <rect width="400" height="21" :fill="`url(#${id}face)`" />
      <rect y="23" width="400" height="17" :fill="`url(#${id}edge)`" />
      <template v-if="strip.pulled_s != null">
        <rect :x="(strip.pulled_s / strip.horizon_s) * 400 - 2" width="4" height="40" class="out" />
      </template>
    </svg>
    <small class="figure">{{ out }}</small>
  </span>
</template>

<style scoped>
.strip {
  display: block;
}
svg {
  display: block;
  width: 100%;
  height: 40px;
  border-radius: 4px;
}
.out {
  fill: #fff;
  stroke: #000;
  stroke-width: 1;
}
small {
  color: var(--kettle-ink-soft);
  font-size: 0.95rem;
}
</style>
