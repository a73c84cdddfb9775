<script setup lang="ts">
/** Several cooks at once: whose turn it is first, then who goes on by itself. */
import { computed, watch } from 'vue'
import { urgency, useLive } from '@/features/live'
import type { EventBody, Live } from '@/api/client'
import { secondsUntil } from '@/shared/format/time'
import CookRow from './CookRow.vue'

const live = useLive()
const GUARD_MS = 600
const LEVELS = ['closer', 'full', 'out']
const step = (cook: Live) => cook.steps.find((s) => s.key === cook.current)
/** Whether it waits for a hand, an eye or a word; a machine goes on by itself. */
const wants = (cook: Live) => step(cook)?.who !== 'machine'
/** The nearest to burning first, then what waits for a hand, then by what is due. */
function rank(cook: Live): number {
  if (cook.fire) return -10 - LEVELS.indexOf(urgency(cook, live.now))
  if (wants(cook)) return 0
  return 1 + Math.max(0, secondsUntil(step(cook)!.due_at, live.nowOf(cook)))
}
const cooks = computed(() => [...live.underWay].sort((a, b) => rank(a) - rank(b)))
const waiting = computed(() => cooks.value.filter(wants).length)
const title = computed(() =>
  waiting.value
    ? `${waiting.value} of ${cooks.value.length} want you now.`
    : `${cooks.value.length} go on by themselves.`,
)
/** A tap right after the rows have changed places was meant for another row. */
let movedAt = 0
watch(
  () => cooks.value.map((cook) => cook.id).join(),
  () => (movedAt = Date.now()),
)
function tell(cook: Live, body: EventBody) {
  if (Date.now() - movedAt >= GUARD_MS) void live.tell(cook.id, body)
}
</script>

<template>
  <section>
    <h1 data-test="many">{{ title }}</h1>
    <ol class="cooks">
      <CookRow
        v-for="cook in cooks"
        :key="cook.id"
        :cook="cook"
        :wants="wants(cook)"
        @told="tell(cook, $event)"
      />
    </ol>
  </section>
</template>

<style scoped>
.cooks {
  margin: 18px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 14px;
}
</style>
