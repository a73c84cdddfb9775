<script setup lang="ts">
import { computed } from 'vue'
import type { Schedule } from '@/api/client'
import { clock, day, duration } from '@/shared/format/time'

/** What is made ready, in its order: what may be done the day before, and the day itself. */
const props = defineProps<{ plan: Schedule; now: Date }>()
type Preparation = Schedule['prepare'][number]
const called = computed(() => new Map(props.plan.lines.map((line) => [line.id, line.name])))
/** A cook's day ends at four in the morning: a supper after midnight is of the evening before it. */
const NIGHT_MS = 4 * 3_600_000
const dayOf = (at: string) => new Date(new Date(at).getTime() - NIGHT_MS).setHours(0, 0, 0, 0)
const supper = computed(() => dayOf(props.plan.ready_at))
const isBefore = (at: string) => dayOf(at) < supper.value
const may = (one: Preparation) => one.earliest_at === null || isBefore(one.earliest_at)

const groups = computed(() => {
  const all = props.plan.prepare
  const own = all.filter((one) => !isBefore(one.start_at))
  const today = dayOf(props.now.toISOString()) >= supper.value
  const early = today ? 'At any time before' : 'The day before, if you like'
  const found = [
    { key: 'before', says: 'The day before', acts: all.filter((one) => isBefore(one.start_at)) },
    { key: 'may', says: early, keeps: true, acts: own.filter(may) },
    { key: 'on', says: 'On the day', acts: own.filter((one) => !may(one)) },
  ]
  return found.filter((group) => group.acts.length)
})
interface Row {
  one: Preparation
  names: string[]
  seconds: number
}
/** What is the same for several dishes, and keeps, is done once for all of them. */
function rows(acts: Preparation[], once: boolean): Row[] {
  const found: Row[] = []
  for (const one of acts) {
    const name = called.value.get(one.line) ?? ''
    const same = once ? found.find((row) => row.one.label === one.label) : undefined
    if (same) {
      same.names.push(name)
      same.seconds += one.seconds
    } else found.push({ one, names: [name], seconds: one.seconds })
  }
  return found
}
function keeps(key: string, one: Preparation): string {
  const early = one.earliest_at !== null && new Date(one.earliest_at) < new Date(one.start_at)
  return key === 'on' && early ? `, from ${clock(one.earliest_at!)} if you like` : ''
}
</script>

<template>
  <section v-if="plan.prepare.length" aria-label="To make ready" data-test="meal-prepare">
    <h2>To make ready</h2>
    <div class="days">
      <div v-for="group in groups" :key="group.key" :data-test="`prepare-${group.key}`">
        <h3>{{ group.says }}</h3>
        <p v-if="group.keeps" class="quiet">It keeps, covered in the fridge.</p>
        <ol>
          <li
            v-for="{ one, names, seconds } in rows(group.acts, Boolean(group.keeps))"
            :key="one.key"
          >
            <span>
              <b v-if="group.key === 'before'" class="figure">{{ day(one.start_at, now) }}</b>
              <b v-if="group.key !== 'may'" class="figure"> {{ clock(one.start_at) }} </b>
              {{ one.label }}
            </span>
            <span class="quiet"
              >{{ names.length > 1 ? 'once for ' : '' }}{{ names.join(' and ') }},
              {{ duration(seconds) }}{{ keeps(group.key, one) }}</span
            >
          </li>
        </ol>
      </div>
    </div>
  </section>
</template>

<style scoped>
.days {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 8px 40px;
  margin: 10px 0 20px;
}
.days p {
  margin: 0;
  font-size: 0.92rem;
}
h3 {
  margin: 0 0 4px;
  font-size: 1.05rem;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  padding: 5px 0;
  border-bottom: 1px solid var(--kettle-line);
  break-inside: avoid;
}
li .quiet {
  font-size: 0.92rem;
}
</style>
