<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { api, ask, type CookSummary, type Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { duration } from '@/shared/format/time'
import PastStrip from './PastStrip.vue'
import { outcomeWords, whenWords } from './words'

const cooks = shallowRef<CookSummary[]>()
const problem = ref<Problem>()

async function load() {
  const { data, problem: found } = await ask(() => api.GET('/api/v1/cooks'))
  problem.value = found
  cooks.value = data?.cooks
}
onMounted(load)
</script>

<template>
  <div class="page">
    <h1>Log</h1>
    <ProblemNote v-if="problem" :problem="problem" again @again="load" />
    <p v-else-if="!cooks" class="quiet" role="status">Leafing back…</p>
    <section v-else-if="!cooks.length" class="empty">
      <p>No cook yet. The first one you finish stands here, plan beside actual.</p>
      <RouterLink to="/">Begin one</RouterLink>
    </section>
    <ol v-else class="cooks">
      <li v-for="cook in cooks" :key="cook.id">
        <RouterLink
          :to="cook.ended_at ? `/log/${cook.id}` : `/stove/${cook.id}`"
          :data-test="`cook-${cook.id}`"
        >
          <span class="what"
            ><b>{{ cook.title }}</b
            ><small>{{ whenWords(cook) }}</small></span
          >
          <PastStrip :strip="cook.strip" />
          <span class="times figure">
            <b>{{ cook.actual_s == null ? '?' : duration(cook.actual_s) }}</b>
            <small>planned {{ duration(cook.planned_s) }}</small>
          </span>
          <span class="how">
            {{ outcomeWords(cook) }}
            <small v-if="cook.unknown_steps"
              >{{ cook.unknown_steps }} step{{ cook.unknown_steps === 1 ? '' : 's' }} nobody
              confirmed</small
            >
          </span>
        </RouterLink>
      </li>
    </ol>
  </div>
</template>

<style scoped>
h1 {
  font-size: 2rem;
  margin-bottom: 12px;
}
.cooks {
  list-style: none;
  margin: 0;
  padding: 0;
}
a {
  display: grid;
  grid-template-columns: 1.2fr 1.6fr 140px 1fr;
  gap: 24px;
  align-items: center;
  padding: 16px 4px;
  color: inherit;
  text-decoration: none;
  border-bottom: 1px solid var(--kettle-line);
}
a:hover {
  background: var(--kettle-ember-soft);
}
.what b {
  font: 700 1.12rem/1.25 var(--kettle-display);
  display: block;
}
small {
  display: block;
  color: var(--kettle-ink-soft);
  font-size: 0.95rem;
}
.times b {
  font: 700 1.3rem var(--kettle-display);
}
.empty a {
  display: inline;
  padding: 0;
  border: 0;
  text-decoration: underline;
}
@media (max-width: 860px) {
  a {
    grid-template-columns: 1fr 1fr;
    gap: 8px 16px;
  }
  .what,
  .strip {
    grid-column: 1 / -1;
  }
}
</style>
