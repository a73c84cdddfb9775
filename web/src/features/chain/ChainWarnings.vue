<script setup lang="ts">
import { computed } from 'vue'
import type { ChainForecast, ChainWatchOut } from '@/api/client'
import { useChainDraft } from './draft'

const props = defineProps<{ forecast: ChainForecast }>()
const draft = useChainDraft()
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
const repair = (w: ChainWatchOut) => draft.patch(w.repair)
</script>

<template>
  <section aria-labelledby="chain-watch">
    <h2 id="chain-watch">Watch out</h2>
    <div v-for="group in groups" :key="group.stage" class="group">
      <h3>{{ group.says }}</h3>
      <ul>
        <li
          v-for="(w, i) in group.list"
          :key="`${w.id}-${i}`"
          :class="w.level.split(' ')[0]"
          :data-test="`watch-${w.id}`"
        >
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
  padding: 8px 14px;
  border-left: 6px solid var(--kettle-line);
}
li.stop {
  border-color: var(--kettle-stop);
  background: var(--kettle-stop-soft);
}
li.stop b {
  color: var(--kettle-stop);
}
li.careful {
  border-color: var(--kettle-careful);
}
li p {
  margin: 2px 0 0;
  color: var(--kettle-ink-soft);
}
.plain-button {
  margin-top: 6px;
}
</style>
