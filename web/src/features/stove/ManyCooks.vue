<script setup lang="ts">
/** Several cooks at once: whose turn it is first, then who goes on by itself. */
import { computed, watch } from 'vue'
import { urgency, useLive } from '@/features/live'
import type { EventBody, Live, Supper } from '@/api/client'
import { secondsUntil } from '@/shared/format/time'
import CookRow from './CookRow.vue'
import SideRow from './SideRow.vue'
import SupperNote from './SupperNote.vue'

const live = useLive()
const GUARD_MS = 600
const LEVELS = ['closer', 'full', 'out']
const step = (cook: Live) => cook.steps.find((s) => s.key === cook.current)
/** Whether it waits for a hand, an eye or a word; a machine goes on by itself. */
const wants = (cook: Live) => step(cook)?.who !== 'machine'
/** The turn that the plan of a supper gives, up to one; what no plan knows goes after it. */
function turn(line: (one: Supper['next'][number]) => boolean): number {
  const place = live.suppers.map((one) => one.next.findIndex(line)).find((at) => at >= 0)
  return place === undefined ? 0.99 : place / 100
}
/** The nearest to burning first, then what waits for a hand, in the order of the plan, then by what is due. */
function rank(cook: Live): number {
  if (cook.fire) return -10 - LEVELS.indexOf(urgency(cook, live.now))
  if (wants(cook)) return turn((one) => one.cook === cook.id)
  return 1 + Math.max(0, secondsUntil(step(cook)!.due_at, live.nowOf(cook)))
}
const cooks = computed(() => [...live.underWay].sort((a, b) => rank(a) - rank(b)))
interface Row {
  key: string
  rank: number
  cook?: Live
  side?: Supper['sides'][number]
  supper?: Supper
}
/** Dishes and sides in one order. */
const rows = computed<Row[]>(() => {
  const dishes = live.underWay.map((cook) => ({ key: `c${cook.id}`, rank: rank(cook), cook }))
  const sides = live.suppers.flatMap((supper) =>
    supper.sides
      .filter((side) => side.step || side.undoable)
      .map((side) => ({
        key: `s${supper.id}/${side.line}`,
        rank: rankOf(side, supper),
        side,
        supper,
      })),
  )
  return [...dishes, ...sides].sort((a, b) => a.rank - b.rank)
})
function rankOf(side: Supper['sides'][number], supper: Supper): number {
  if (!side.step) return 1e9
  if (side.who === 'hands') return turn((one) => one.line === side.line && one.cook === null)
  return 1 + Math.max(0, secondsUntil(side.due_at!, new Date(supper.now)))
}
const handSides = computed(() =>
  live.suppers.flatMap((one) => one.sides.filter((side) => side.who === 'hands')),
)
const waiting = computed(() => cooks.value.filter(wants).length + handSides.value.length)
const title = computed(() =>
  waiting.value
    ? `${waiting.value} of ${rows.value.length} ${waiting.value === 1 ? 'wants' : 'want'} you now.`
    : `${rows.value.length} go on by themselves.`,
)
/** Until when a dish may wait for its next act, where a plan knows. */
const untilOf = (cook: Live) =>
  live.suppers.flatMap((one) => one.next).find((one) => one.cook === cook.id)?.waits_until ?? null
/** A tap right after the rows have changed places was meant for another row. */
let movedAt = 0
watch(
  () => rows.value.map((row) => row.key).join(),
  () => (movedAt = Date.now()),
)
function tell(cook: Live, body: EventBody) {
  if (Date.now() - movedAt >= GUARD_MS) void live.tell(cook.id, body)
}
</script>

<template>
  <section>
    <h1 data-test="many">{{ title }}</h1>
    <p v-if="live.waiting" class="quiet" role="status" data-test="waiting">
      {{ live.waiting }} tap{{ live.waiting === 1 ? '' : 's' }} waiting for the kettle.
    </p>
    <SupperNote v-for="one in live.suppers" :key="one.id" :supper="one" />
    <ol class="cooks">
      <template v-for="row in rows" :key="row.key">
        <CookRow
          v-if="row.cook"
          :cook="row.cook"
          :wants="wants(row.cook)"
          :until="untilOf(row.cook)"
          @told="tell(row.cook, $event)"
        />
        <SideRow v-else-if="row.supper && row.side" :supper="row.supper" :side="row.side" />
      </template>
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
