<script setup lang="ts">
import type { Step } from '@/api/client'
import { clock, duration } from '@/shared/format/time'

defineProps<{ steps: Step[]; now: Date; brief?: boolean }>()
defineEmits<{ jump: [key: string] }>()
const words: Record<string, string> = {
  confirmed: 'you said so',
  estimated: 'estimated',
  unknown: 'nobody said',
  current: 'now',
  running: 'running',
  upcoming: '',
}

function when(step: Step): string {
  if (step.state === 'unknown') return '?'
  if (step.end_at) return clock(step.end_at)
  return step.state === 'upcoming'
    ? clock(new Date(new Date(step.due_at).getTime() - step.likely_s * 1000))
    : 'now'
}
</script>

<template>
  <ol class="steps figure">
    <li
      v-for="step in steps"
      :key="step.key"
      :class="step.state"
      :data-test="`step-${step.key}`"
      :data-state="step.state"
    >
      <svg viewBox="0 0 22 22" width="22" height="22" aria-hidden="true">
        <template v-if="step.state === 'confirmed'">
          <circle cx="11" cy="11" r="10" fill="currentColor" />
          <path d="M6 11l3.500 4L16 7" class="tick" />
        </template>
        <template v-else-if="step.state === 'estimated'">
          <circle cx="11" cy="11" r="9" class="dash" />
          <path d="M6 9q2.500-3 5 0t5 0M6 14q2.500-3 5 0t5 0" class="wave" />
        </template>
        <template v-else-if="step.state === 'unknown'">
          <rect x="2" y="2" width="18" height="18" class="dash" />
          <text x="11" y="16" text-anchor="middle">?</text>
        </template>
        <path
          v-else-if="step.state === 'current' || step.state === 'running'"
          d="M4 2l15 9-15 9z"
          fill="currentColor"
        />
        <circle v-else cx="11" cy="11" r="8" class="open" />
      </svg>
      <span class="at">{{ when(step) }}</span>
      <span class="name"
        >{{ step.label
        }}<small v-if="!brief && words[step.state]"
          >{{ words[step.state]
          }}<template v-if="step.who === 'gate' && step.state === 'unknown'"
            >; not passed</template
          ></small
        ></span
      >
      <span v-if="brief || step.state === 'upcoming'" class="long">{{
        duration(step.likely_s)
      }}</span>
      <button
        v-if="!brief && step.state === 'upcoming' && step.who !== 'gate'"
        type="button"
        class="jump"
        :aria-label="`${step.label} is done, skip to it`"
        @click="$emit('jump', step.key)"
      >
        done already
      </button>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 24px 52px 1fr auto auto;
  gap: 10px;
  align-items: center;
  min-height: 46px;
  border-bottom: 1px solid var(--kettle-line);
}
.at {
  font-weight: 700;
}
small {
  display: block;
  color: var(--kettle-ink-soft);
  line-height: 1.1;
}
.confirmed svg {
  color: var(--kettle-good);
}
.estimated,
.unknown {
  font-style: italic;
}
.estimated svg {
  color: var(--kettle-enamel-soft);
}
.unknown svg {
  color: var(--kettle-careful);
}
.current svg,
.running svg {
  color: var(--kettle-ember);
}
.current,
.running {
  font-weight: 700;
}
.tick {
  fill: none;
  stroke: var(--kettle-sheet);
  stroke-width: 2.6;
}
.dash {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-dasharray: 3 3;
}
.wave {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
}
.open {
  fill: none;
  stroke: var(--kettle-line);
  stroke-width: 2;
}
text {
  fill: currentColor;
  font-weight: 700;
  font-size: 14px;
}
.long {
  color: var(--kettle-ink-soft);
}
.jump {
  border: 0;
  background: none;
  color: var(--kettle-ink-soft);
  text-decoration: underline;
  min-height: 44px;
  cursor: pointer;
  font-size: 0.92rem;
}
</style>
