<script setup lang="ts">
import type { Dish, WatchOut } from '@/api/client'
import { useDraft } from './draft'

defineProps<{ list: WatchOut[]; guidance: string }>()
const draft = useDraft()
</script>

<template>
  <section aria-labelledby="watch-title">
    <h2 id="watch-title">Watch out</h2>
    <ul>
      <li v-for="w in list" :key="w.id" :class="w.level.split(' ')[0]" :data-test="`watch-${w.id}`">
        <svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">
          <path v-if="w.level === 'stop'" d="M8 2h8l6 6v8l-6 6H8l-6-6V8z" fill="currentColor" />
          <path v-else-if="w.level === 'careful'" d="M12 2l11 20H1z" fill="currentColor" />
          <circle v-else cx="12" cy="12" r="7" fill="none" stroke="currentColor" stroke-width="3" />
          <rect
            v-if="w.level !== 'good to know'"
            x="11"
            y="8"
            width="2.400"
            height="7"
            class="mark"
          />
          <rect
            v-if="w.level !== 'good to know'"
            x="11"
            y="16.500"
            width="2.400"
            height="2.400"
            class="mark"
          />
        </svg>
        <div>
          <b
            ><span class="visually-hidden">{{ w.level }}: </span>{{ w.message }}</b
          >
          <p>{{ w.why }}</p>
          <el-button
            v-if="w.repair_says"
            class="plain-button"
            @click="draft.change(w.repair as Partial<Dish>)"
          >
            {{ w.repair_says }}
          </el-button>
        </div>
      </li>
    </ul>
    <p class="quiet guidance">{{ guidance }}</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 10px 0;
  padding: 0;
  display: grid;
  gap: 12px;
}
li {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 12px;
}
li p {
  margin: 0;
  color: var(--kettle-ink-soft);
}
svg {
  margin-top: 2px;
}
.stop {
  color: var(--kettle-stop);
}
.careful {
  color: var(--kettle-careful);
}
.good {
  color: var(--kettle-good);
}
li b {
  color: var(--kettle-ink);
}
.stop b {
  color: var(--kettle-stop);
}
.mark {
  fill: var(--kettle-paper);
}
.plain-button {
  margin-top: 6px;
}
.guidance {
  font-size: 0.95rem;
}
</style>
