<script setup lang="ts">
/** Several cooks at once: whose turn it is, what each does now and next, and who goes on by itself. */
import { computed } from 'vue'
import { fireSeconds, mainClock, urgency, useLive } from '@/features/live'
import type { Live } from '@/api/client'
import { clock, secondsUntil } from '@/shared/format/time'
import StovePicture from './StovePicture.vue'

const live = useLive()
const step = (cook: Live) => cook.steps.find((s) => s.key === cook.current)
const line = (cook: Live) => cook.steps.filter((s) => !s.beside)
function next(cook: Live) {
  const steps = line(cook)
  return steps[steps.findIndex((s) => s.key === cook.current) + 1]
}
/** Whether it waits for a hand, an eye or a word; a machine goes on by itself. */
const wants = (cook: Live) => step(cook)?.who !== 'machine'
/** A hands step needs no clock. */
const timed = (cook: Live) => Boolean(cook.fire) || step(cook)?.who === 'machine'
const LEVELS = ['closer', 'full', 'out']
/** The nearest to burning first, then what waits for a hand, then by what is due. */
function rank(cook: Live): number {
  if (cook.fire) return LEVELS.indexOf(urgency(cook, live.now)) * -1 - 10
  if (wants(cook)) return 0
  return 1 + Math.max(0, secondsUntil(step(cook)?.due_at ?? cook.serve_at, live.nowOf(cook)))
}
const cooks = computed(() => [...live.underWay].sort((a, b) => rank(a) - rank(b)))
const waiting = computed(() => cooks.value.filter(wants).length)
const title = computed(() =>
  waiting.value
    ? `${waiting.value} of ${cooks.value.length} want you now.`
    : `${cooks.value.length} go on by themselves.`,
)
/** A step by hand or a fire is told here; a check wants its own page. */
const tellable = (cook: Live) => Boolean(step(cook)) && !cook.gate && !cook.fire?.assumed
const tell = (cook: Live) => void live.tell(cook.id, { kind: 'done', step: cook.current! })
</script>

<template>
  <section>
    <h1 data-test="many">{{ title }}</h1>
    <ol class="cooks">
      <li
        v-for="cook in cooks"
        :key="cook.id"
        :class="{ wants: wants(cook), urgent: urgency(cook, live.now) }"
        :data-test="`many-${cook.id}`"
      >
        <RouterLink :to="`/stove/${cook.id}`" class="look" :aria-label="`To ${cook.title}`">
          <StovePicture :picture="cook.picture" :under-s="fireSeconds(cook, live.now)" />
          <b v-if="timed(cook)" class="figure">{{ mainClock(cook, step(cook), live.now) }}</b>
        </RouterLink>
        <div class="words">
          <p class="title">{{ cook.rehearsal ? `Rehearsal: ${cook.title}` : cook.title }}</p>
          <p class="says">{{ cook.current ? cook.says : 'On the table. How was it?' }}</p>
          <p v-if="next(cook)" class="quiet">
            Next: {{ next(cook)!.label }}, about {{ clock(next(cook)!.due_at) }}
          </p>
        </div>
        <el-button
          v-if="tellable(cook)"
          :class="wants(cook) ? 'wide-button' : 'plain-button'"
          :data-test="`many-done-${cook.id}`"
          @click="tell(cook)"
        >
          {{ cook.button }}
        </el-button>
        <RouterLink v-else :to="`/stove/${cook.id}`" class="plain-button">
          {{ cook.gate ? 'To its check' : 'To the stove' }}
        </RouterLink>
      </li>
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
li {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 260px;
  gap: 24px;
  align-items: center;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--kettle-line);
}
.look {
  position: relative;
  display: block;
  height: 168px;
  border-radius: 18px;
  overflow: hidden;
  background: var(--kettle-night);
  color: var(--kettle-chalk);
}
.urgent .look {
  background: var(--kettle-alarm);
}
.look b {
  position: absolute;
  left: 14px;
  bottom: 8px;
  font: 700 1.9rem var(--kettle-display);
}
.words p {
  margin: 0 0 4px;
}
.title {
  color: var(--kettle-ink-soft);
}
.says {
  font: 700 1.6rem/1.15 var(--kettle-display);
}
li:not(.wants) .says {
  font-size: 1.2rem;
}
.wide-button {
  min-height: 96px;
}
.plain-button {
  justify-self: stretch;
  text-align: center;
}
@media (max-width: 860px) {
  li {
    grid-template-columns: 116px minmax(0, 1fr);
    gap: 8px 14px;
  }
  .look {
    height: 96px;
  }
  .look b {
    left: 8px;
    bottom: 2px;
    font-size: 1.25rem;
  }
  .says,
  li:not(.wants) .says {
    font-size: 1.15rem;
  }
  li > .el-button,
  li > .plain-button {
    grid-column: 1 / -1;
  }
}
</style>
