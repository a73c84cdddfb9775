<script setup lang="ts">
/** One of several cooks: as it is now, what to do, what comes next, and its button. */
import { computed } from 'vue'
import {
  fireSeconds,
  mainClock,
  urgency,
  useLive,
  useLiveGlaze,
  useTrueStrip,
} from '@/features/live'
import type { EventBody, Live } from '@/api/client'
import { clock } from '@/shared/format/time'
import StovePicture from './StovePicture.vue'

const props = defineProps<{ cook: Live; wants: boolean; until?: string | null }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const live = useLive()
const glaze = useLiveGlaze(() => props.cook)
const truth = useTrueStrip(() => props.cook)
const drawn = computed(() => (props.cook.rehearsal ? truth.value : glaze.value))
const line = computed(() => props.cook.steps.filter((s) => !s.beside))
const place = computed(() => line.value.findIndex((s) => s.key === props.cook.current))
const step = computed(() => line.value[place.value])
const next = computed(() => (step.value ? line.value[place.value + 1] : undefined))
/** A hands step needs no clock. */
const timed = computed(() => Boolean(props.cook.fire) || step.value?.who === 'machine')
/** A check, a doubt about the fire, and a planned start want their own page. */
const tellable = computed(
  () => step.value && step.value.key !== 'wait' && !props.cook.gate && !props.cook.fire?.assumed,
)
const title = computed(() =>
  props.cook.rehearsal ? `Rehearsal: ${props.cook.title}` : props.cook.title,
)
/** What a device says is done is told as of then. */
const tell = () =>
  emit('told', { kind: 'done', step: props.cook.current!, ago_s: props.cook.offer?.ago_s ?? 0 })
</script>

<template>
  <li :class="{ wants, urgent: urgency(cook, live.now) }" :data-test="`many-${cook.id}`">
    <RouterLink :to="`/stove/${cook.id}`" class="look" :aria-label="`To ${cook.title}`">
      <StovePicture :picture="cook.picture" :glaze="drawn" :under-s="fireSeconds(cook, live.now)" />
      <b v-if="timed" class="figure">{{ mainClock(cook, step, live.now) }}</b>
    </RouterLink>
    <div class="words">
      <p class="title">{{ title }}</p>
      <p class="says">{{ cook.current ? cook.says : 'On the table. How was it?' }}</p>
      <p v-if="wants && until" class="quiet">It can wait until {{ clock(until) }}</p>
      <p v-if="next" class="quiet">Next: {{ next.label }}, about {{ clock(next.due_at) }}</p>
    </div>
    <el-button
      v-if="tellable"
      :class="wants ? 'wide-button' : 'plain-button'"
      :data-test="`many-done-${cook.id}`"
      @click="tell"
    >
      {{ cook.button }}
    </el-button>
    <RouterLink v-else :to="`/stove/${cook.id}`" class="plain-button">
      {{ cook.gate ? 'To its check' : 'To the stove' }}
    </RouterLink>
  </li>
</template>

<style scoped>
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
