<script setup lang="ts">
import { computed } from 'vue'
import type { Schedule } from '@/api/client'
import { clock, day, duration } from '@/shared/format/time'
import { small } from '@/shared/format/words'

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
  found.push(...props.plan.tasks.filter(isStart).map(startOf))
  return withQuiet(together(found.sort((a, b) => a.at.localeCompare(b.at))))
})
/** What goes on by itself is begun by somebody: a side, and what does not follow at once. */
const AT_ONCE_S = 60
const sides = computed(() => props.plan.lines.filter((l) => l.kind === 'side').map((l) => l.id))
const isStart = (t: Schedule['tasks'][number]) =>
  t.who === 'machine' && (sides.value.includes(t.line) || !follows(t))
const follows = (t: Schedule['tasks'][number]) =>
  props.plan.tasks.some(
    (one) => one.line === t.line && Math.abs(seconds(one.end_at, t.start_at)) < AT_ONCE_S,
  )
const startOf = (t: Schedule['tasks'][number]): Row => ({
  key: t.key,
  at: t.start_at,
  end: t.start_at,
  acts: [{ key: '', says: `Start: ${small(t.label)}, ${duration(seconds(t.start_at, t.end_at))}` }],
  of: called.value.get(t.line) ?? '',
  kind: 'on',
  pair: null,
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
/** On paper, four hours are a page; the last one ends with supper. */
const PAGE_S = 4 * 3600
interface Sheet {
  key: number
  rows: Row[]
}
const sheets = computed<Sheet[]>(() => {
  const found: Sheet[] = []
  for (const row of rows.value) {
    const left = Math.max(0, seconds(row.at, props.plan.ready_at))
    const key = Math.floor(left / PAGE_S)
    const last = found.at(-1)
    const same = last && (last.key === key || row.kind === 'quiet')
    if (same) last.rows.push(row)
    else found.push({ key, rows: [row] })
  }
  return found
})
const head = (sheet: Sheet, place: number) => {
  const acts = sheet.rows.filter((row) => row.kind !== 'quiet')
  const first = (acts[0] ?? sheet.rows[0]!).at
  const on = days.value ? `${day(first, props.now)} ` : ''
  const until = place === sheets.value.length - 1 ? props.plan.ready_at : acts.at(-1)!.end
  const of = sheets.value.length > 1 ? `, page ${place + 1} of ${sheets.value.length}` : ''
  return `${on}${clock(first)} to ${clock(until)}${of}`
}
const days = computed(() => new Set(rows.value.map((row) => day(row.at, props.now))).size > 1)
</script>

<template>
  <div class="sheets" data-test="meal-list">
    <section v-for="(sheet, place) in sheets" :key="sheet.key" class="sheet">
      <h3 class="only-print">{{ head(sheet, place) }}</h3>
      <ol>
        <li v-for="row in sheet.rows" :key="row.key" :class="row.kind">
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
        <li v-if="place === sheets.length - 1" class="end">
          <span class="figure time">{{ clock(plan.ready_at) }}</span>
          <b>On the table.</b>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.sheets {
  columns: 2;
  column-gap: 40px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.only-print {
  display: none;
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
  .sheets {
    columns: 1;
  }
  button {
    min-height: 44px;
  }
}
@media print {
  .sheets {
    columns: 1;
  }
  .sheet + .sheet {
    break-before: page;
  }
  .only-print {
    display: block;
    margin: 0 0 8px;
    font-size: 1.3rem;
  }
  li {
    padding: 4px 0;
  }
  button {
    padding: 0;
    min-height: 0;
  }
}
</style>
