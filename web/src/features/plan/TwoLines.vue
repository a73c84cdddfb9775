<script setup lang="ts">
/** Two cooks on one scale of time: what waits, what a timer is set for, hands and fire. */
import { computed } from 'vue'
import type { ChainForecast } from '@/api/client'
import { fillOf, links } from './links'
import { duration } from '@/shared/format/time'

const props = defineProps<{ two: ChainForecast[] }>()
const longest = computed(() => Math.max(...props.two.map((one) => one.total.likely_s), 1))
const lines = computed(() =>
  props.two.map((one) => ({
    title: one.title,
    takes: duration(one.total.likely_s),
    parts: links(one.links, (100 * one.total.likely_s) / longest.value).map((part) => ({
      key: part.stage.key,
      fill: fillOf(part.stage),
      width: `${part.width}%`,
    })),
  })),
)
</script>

<template>
  <div class="lines" data-test="two-lines">
    <div v-for="(line, i) in lines" :key="i">
      <p>
        {{ line.title }} <b class="figure">{{ line.takes }}</b>
      </p>
      <div class="line" role="img" :aria-label="`${line.title}: ${line.takes}`">
        <i
          v-for="part in line.parts"
          :key="part.key"
          :class="part.fill"
          :style="{ width: part.width }"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.lines {
  display: grid;
  gap: 12px;
}
p {
  margin: 0 0 4px;
}
.line {
  display: flex;
  height: 34px;
}
i {
  flex: none;
  border-right: 1px solid var(--kettle-paper);
}
.timer {
  background: var(--kettle-enamel);
}
:global(html.dark .line .timer) {
  background: #7fa3c7;
}
.fire {
  background: var(--kettle-ember);
}
.hands {
  background: var(--kettle-hands);
}
.wait {
  background: repeating-linear-gradient(
    135deg,
    var(--kettle-machine) 0 4px,
    var(--kettle-enamel-soft) 4px 6px
  );
}
</style>
