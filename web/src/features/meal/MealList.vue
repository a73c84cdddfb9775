<script setup lang="ts">
import { computed } from 'vue'
import type { Schedule } from '@/api/client'
import { clock, day, duration } from '@/shared/format/time'

/** The same as a list: what hands do when, what is switched on, and where nothing is asked. */
const props = defineProps<{ plan: Schedule; now: Date; shown: string }>()
defineEmits<{ show: [key: string] }>()
const QUIET_S = 600
interface Act {
  key: string
  says: string
}
interface Row {
  key: string
  at: string
  end: string
  acts: Act[]
  of: string
  kind: 'act' | 'on' | 'quiet'
  pair: number | null
}
const called = computed(() => new Map(props.plan.lines.map((line) => [line.id, line.name])))
const several = computed(() => props.plan.tasks.some((t) => (t.pair ?? 0) > 0))
const seconds = (from: string, to: string) =>
  (new Date(to).getTime() - new Date(from).getTime()) / 1000
const small = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)

const rows = computed<Row[]>(() => {
  const found: Row[] = props.plan.tasks
    .filter((t) => t.pair !== null)
    .map((t) => ({
      key: t.key,
      at: t.hands_at,
      end: t.end_at,
      acts: [{ key: t.key, says: actOf(t) }],
      of: called.value.get(t.line) ?? '',
      kind: 'act',
      pair: t.pair,
    }))
  for (const one of props.plan.aheads) {
    const says = `Switch on: ${small(one.label)}, hot at ${clock(one.ready_at)}`
    found.push({
      key: `on ${one.label} ${one.start_at}`,
      at: one.start_at,
      end: one.start_at,
      acts: [{ key: '', says }],
      of: called.value.get(one.line) ?? '',
      kind: 'on',
      pair: null,
    })
  }
  return withQuiet(together(found.sort((a, b) => a.at.localeCompare(b.at))))
})
const actOf = (t: Schedule['tasks'][number]) =>
  t.who === 'fire' ? `${t.label}, about ${duration(seconds(t.start_at, t.end_at))}` : t.label

/** What the same hands do to the same dish in one go is one row. */
function together(sorted: Row[]): Row[] {
  const found: Row[] = []
  for (const row of sorted) {
    const last = found.at(-1)
    const same = last && last.kind === 'act' && row.kind === 'act'
    const next = same && last.of === row.of && last.pair === row.pair
    if (next && seconds(last.end, row.at) < 90) {
      last.acts = [...last.acts, ...row.acts]
      last.end = row.end
    } else found.push({ ...row })
  }
  return found
}

/** Waits that are long enough to sit down are told. */
function withQuiet(sorted: Row[]): Row[] {
  const found: Row[] = []
  let free = ''
  for (const row of sorted) {
    if (free && seconds(free, row.at) > QUIET_S) {
      const says = `Nothing for your hands until ${clock(row.at)}: ${duration(seconds(free, row.at))}`
      found.push({
        key: `quiet ${free}`,
        at: free,
        end: row.at,
        acts: [{ key: '', says }],
        of: '',
        kind: 'quiet',
        pair: null,
      })
    }
    found.push(row)
    if (row.end > free) free = row.end
  }
  return found
}
const days = computed(() => new Set(rows.value.map((row) => day(row.at, props.now))).size > 1)
</script>

<template>
  <ol class="sheet" data-test="meal-list">
    <li v-for="row in rows" :key="row.key" :class="row.kind">
      <span class="figure time"
        ><template v-if="days && row.kind !== 'quiet'">{{ day(row.at, now) }} </template
        >{{ row.kind === 'quiet' ? '' : clock(row.at) }}</span
      >
      <span v-if="row.kind === 'act'" class="acts">
        <button
          v-for="act in row.acts"
          :key="act.key"
          type="button"
          :class="{ here: act.key === shown }"
          :aria-pressed="act.key === shown"
          @click="$emit('show', act.key)"
        >
          {{ act.says }}
        </button>
      </span>
      <span v-else>{{ row.acts[0]!.says }}</span>
      <span class="quiet of"
        >{{ row.of }}{{ several && row.pair !== null ? ` · pair ${row.pair + 1}` : '' }}</span
      >
    </li>
    <li class="end">
      <span class="figure time">{{ clock(plan.ready_at) }}</span>
      <b>On the table.</b>
    </li>
  </ol>
</template>

<style scoped>
.sheet {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 2;
  column-gap: 40px;
}
li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 14px;
  align-items: baseline;
  padding: 5px 0;
  border-bottom: 1px solid var(--kettle-line);
  break-inside: avoid;
}
.time {
  font-weight: 700;
  min-width: 52px;
}
.of {
  grid-column: 2;
  font-size: 0.92rem;
}
.quiet > span:not(.time),
.on > span:not(.of, .time) {
  font-style: italic;
}
li.quiet {
  color: var(--kettle-ink-soft);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
button {
  font: inherit;
  border: 0;
  background: none;
  padding: 6px 0;
  min-height: 32px;
  text-align: left;
  color: inherit;
  cursor: pointer;
}
.here {
  font-weight: 700;
  text-decoration: underline 3px var(--kettle-ember);
  text-underline-offset: 4px;
}
@media (max-width: 800px) {
  .sheet {
    columns: 1;
  }
  button {
    min-height: 44px;
  }
}
@media print {
  .sheet {
    columns: 1;
  }
  li {
    padding: 2px 0;
  }
}
</style>
