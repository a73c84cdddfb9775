<script setup lang="ts">
import { computed } from 'vue'
import type { Cook } from '@/api/client'
import { duration } from '@/shared/format/time'
import { difference } from './words'

const props = defineProps<{ stages: Cook['stages'] }>()
const longest = computed(() =>
  Math.max(60, ...props.stages.flatMap((s) => [s.planned_high_s, s.actual_s ?? 0])),
)
// Square roots, so that a minute of brushing can be seen beside an hour under pressure.
const width = (seconds: number) => `${(Math.sqrt(seconds / longest.value) * 100).toFixed(1)}%`
const words: Record<string, string> = {
  estimated: 'went on as an estimate',
  unknown: 'nobody said',
  'not reached': 'not reached',
}
</script>

<template>
  <table class="figure">
    <thead>
      <tr>
        <th scope="col">Stage</th>
        <th scope="col"><span class="planned" /> planned <span class="actual" /> actual</th>
        <th scope="col">Planned</th>
        <th scope="col">Actual</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="s in stages"
        :key="s.key"
        :class="s.state.split(' ')[0]"
        :data-test="`compare-${s.key}`"
      >
        <th scope="row">{{ s.label }}</th>
        <td class="bars">
          <i class="planned" :style="{ width: width(s.planned_s) }" />
          <i v-if="s.actual_s != null" class="actual" :style="{ width: width(s.actual_s) }" />
          <i v-else class="unknown" :style="{ width: width(s.planned_s) }" />
        </td>
        <td>{{ duration(s.planned_s) }}</td>
        <td>
          <b>{{ s.actual_s == null ? '' : duration(s.actual_s) }}</b>
          <small>{{ words[s.state] ?? difference(s.actual_s, s.planned_s) }}</small>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 7px 12px 7px 0;
}
thead th {
  color: var(--kettle-ink-soft);
  font-size: 0.95rem;
}
tbody tr {
  border-top: 1px solid var(--kettle-line);
}
td {
  padding: 7px 12px 7px 0;
  white-space: nowrap;
}
.bars {
  width: 46%;
}
i {
  display: block;
  height: 10px;
  border-radius: 2px;
  min-width: 3px;
  margin: 2px 0;
}
.planned {
  background: var(--kettle-hands);
}
.actual {
  background: var(--kettle-ember);
}
i.unknown {
  background: repeating-linear-gradient(90deg, var(--kettle-careful) 0 4px, transparent 4px 9px);
  height: 4px;
}
thead span {
  display: inline-block;
  width: 14px;
  height: 10px;
  margin-left: 10px;
}
small {
  color: var(--kettle-ink-soft);
}
.unknown th,
.estimated th {
  font-style: italic;
}
@media (max-width: 640px) {
  .bars {
    display: none;
  }
  thead th:nth-child(2) {
    display: none;
  }
  td {
    white-space: normal;
  }
}
td small {
  margin-left: 10px;
}
</style>
