<script setup lang="ts">
import type { Cook } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { clock } from '@/shared/format/time'
import { temperature } from '@/shared/format/units'

/** Every check as it went, and every stop that was started over, with its reason. */
defineProps<{ checks: Cook['checks']; accepted: Cook['accepted'] }>()
const { degrees } = useUnits()
const words: Record<string, string> = {
  passed: 'passed',
  failed: 'not passed',
  skipped: 'left out',
}
const feel = (tender: boolean | null | undefined) =>
  tender === true ? 'tender' : tender === false ? 'not tender' : ''
</script>

<template>
  <section v-if="checks.length || accepted.length" data-test="checks">
    <h2>Checks</h2>
    <ul>
      <li v-for="(check, i) in checks" :key="i" :class="check.verdict">
        <span class="figure">{{ clock(check.at) }}</span>
        <b>{{ words[check.verdict] ?? check.verdict }}</b>
        <span v-if="check.temp_c != null" class="figure">
          {{ temperature(check.temp_c, degrees) }}
        </span>
        <span v-if="feel(check.tender)">{{ feel(check.tender) }}</span>
        <span v-if="check.why">{{ check.why }}</span>
      </li>
      <li v-for="stop in accepted" :key="stop.stop" class="skipped">
        <b>started all the same</b>
        <span>{{ stop.message }}</span>
        <span>“{{ stop.reason }}”</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 8px 14px;
  border-left: 5px solid var(--kettle-good);
}
.failed {
  border-left-color: var(--kettle-stop);
  border-left-style: double;
}
.skipped {
  border-left-color: var(--kettle-careful);
  border-left-style: dashed;
}
h2 {
  margin: 26px 0 8px;
}
</style>
