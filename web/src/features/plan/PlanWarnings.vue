<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { ChainForecast, ChainWatchOut } from '@/api/client'
import { useDraft } from './draft'

const props = defineProps<{ forecast: ChainForecast }>()
const draft = useDraft()
const clauseOf = computed(
  () => new Map(props.forecast.sentence.map((clause) => [clause.stage, clause.text])),
)
/** Warnings by their stage, in the order of the sentence; those of the whole cook last. */
const groups = computed(() => {
  const stages = [...props.forecast.sentence.map((c) => c.stage).filter(Boolean), '']
  return stages
    .map((stage) => ({
      stage,
      says: stage ? (clauseOf.value.get(stage) ?? '') : 'The whole cook',
      list: props.forecast.watch_outs.filter((w) => w.stage === stage),
    }))
    .filter((group) => group.list.length)
})
/** The button goes with its warning: keys go on from the heading. */
const head = useTemplateRef<HTMLElement>('head')
const repair = (w: ChainWatchOut) => {
  draft.patch(w.repair)
  head.value?.focus({ preventScroll: true })
}
</script>

<template>
  <section aria-labelledby="chain-watch">
    <h2 id="chain-watch" ref="head" tabindex="-1">Watch out</h2>
    <div v-for="group in groups" :key="group.stage" class="group">
      <h3>{{ group.says }}</h3>
      <ul>
        <li
          v-for="(w, i) in group.list"
          :key="`${w.id}-${i}`"
          :class="w.level.split(' ')[0]"
          :data-test="`watch-${w.id}`"
        >
          <svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">
            <path v-if="w.level === 'stop'" d="M8 2h8l6 6v8l-6 6H8l-6-6V8z" fill="currentColor" />
            <path v-else-if="w.level === 'careful'" d="M12 2l11 20H1z" fill="currentColor" />
            <circle
              v-else
              cx="12"
              cy="12"
              r="7"
              fill="none"
              stroke="currentColor"
              stroke-width="3"
            />
            <template v-if="w.level !== 'good to know'">
              <rect x="11" y="8" width="2.400" height="7" class="mark" />
              <rect x="11" y="16.500" width="2.400" height="2.400" class="mark" />
            </template>
          </svg>
          <div>
            <b
              ><span class="visually-hidden">{{ w.level }}: </span>{{ w.message }}</b
            >
            <p>{{ w.why }}</p>
            <el-button
              v-if="w.repair_says"
              class="plain-button"
              :data-test="`repair-${w.id}`"
              @click="repair(w)"
            >
              {{ w.repair_says }}
            </el-button>
          </div>
        </li>
      </ul>
    </div>
    <p class="quiet">{{ forecast.guidance }}</p>
  </section>
</template>

<style scoped>
.group {
  margin-bottom: 18px;
}
section {
  margin-top: 30px;
}
h2 {
  margin-bottom: 12px;
}
h3::first-letter {
  text-transform: uppercase;
}
h3 {
  font: 700 1.05rem var(--kettle-display);
  margin: 0 0 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 12px;
  padding: 4px 0;
}
svg {
  margin-top: 2px;
}
li.stop {
  padding: 8px 12px;
  border-radius: 12px;
  background: var(--kettle-stop-soft);
}
.stop svg,
.stop b {
  color: var(--kettle-stop);
}
.careful svg {
  color: var(--kettle-careful);
}
.good svg {
  color: var(--kettle-good);
}
.mark {
  fill: var(--kettle-paper);
}
li p {
  margin: 2px 0 0;
  color: var(--kettle-ink-soft);
}
.plain-button {
  margin-top: 6px;
}
</style>
