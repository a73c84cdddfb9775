<script setup lang="ts">
import { computed } from 'vue'
import type { Appliance } from '@/api/client'
import { factorPlace, factorRange } from './drawing'

/** The heat factor, sign by sign: each row narrower than the one above it, if the signs agree. */
const props = defineProps<{ history: Appliance['history'] }>()
const rows = computed(() =>
  props.history.slice(-6).map((h, i, all) => {
    const [low, high] = factorRange(h.factor, h.log_sd)
    return {
      ...h,
      left: factorPlace(low),
      right: factorPlace(high),
      at: factorPlace(h.factor),
      now: i === all.length - 1,
      first: h.observation_id === null,
    }
  }),
)
const spoken = computed(() => {
  const last = props.history.at(-1)
  if (!last) return ''
  const [low, high] = factorRange(last.factor, last.log_sd)
  return `Heat factor ${last.factor.toFixed(2)}, ${low.toFixed(2)} to ${high.toFixed(2)}`
})
</script>

<template>
  <div class="bar" role="img" :aria-label="spoken">
    <div v-for="(r, i) in rows" :key="i" class="row" :class="{ now: r.now }">
      <span class="what">{{ r.first ? 'before any sign' : r.now ? 'now' : '' }}</span>
      <div>
        <i class="span" :style="{ left: `${r.left}%`, width: `${r.right - r.left}%` }" /><b
          :style="{ left: `${r.at}%` }"
        />
      </div>
    </div>
    <div class="ends quiet"><span>half</span><span>typical</span><span>twice</span></div>
  </div>
</template>

<style scoped>
.bar {
  max-width: 620px;
}
.row {
  display: grid;
  grid-template-columns: 112px 1fr;
}
.row > div {
  position: relative;
  height: 20px;
  border-left: 1px solid var(--kettle-line);
  border-right: 1px solid var(--kettle-line);
  background: linear-gradient(
    90deg,
    transparent calc(50% - 1px),
    var(--kettle-line) calc(50% - 1px),
    var(--kettle-line) calc(50% + 1px),
    transparent calc(50% + 1px)
  );
}
.span {
  position: absolute;
  top: 6px;
  height: 8px;
  background: var(--kettle-machine);
  border-radius: 4px;
}
.row b {
  position: absolute;
  top: 2px;
  width: 4px;
  height: 16px;
  margin-left: -2px;
  background: var(--kettle-enamel-soft);
}
.now .span {
  background: var(--kettle-ember);
  top: 4px;
  height: 12px;
}
.now b {
  background: var(--kettle-ink);
}
.what {
  font-size: 0.92rem;
  line-height: 20px;
  color: var(--kettle-ink-soft);
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: 0.92rem;
  margin: 2px 0 0 112px;
}
</style>
