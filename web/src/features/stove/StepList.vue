<script setup lang="ts">
import { ref } from 'vue'
import type { EventBody, Step } from '@/api/client'
import { clock, duration, earlier } from '@/shared/format/time'
import GateForm from './GateForm.vue'
import StepMark from './StepMark.vue'

const props = defineProps<{ steps: Step[]; brief?: boolean }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const again = ref<Step>()
const WORDS: Record<string, string> = {
  confirmed: 'you said so',
  estimated: 'estimated',
  unknown: 'nobody said',
  current: 'now',
  running: 'running',
  upcoming: '',
}
const GATES: Record<string, string> = { failed: 'not good yet', skipped: 'left out' }

function words(step: Step): string {
  if (GATES[step.gate]) return step.note ? `${GATES[step.gate]}: ${step.note}` : GATES[step.gate]!
  return WORDS[step.state] ?? ''
}
function when(step: Step): string {
  if (step.state === 'unknown') return '?'
  if (step.end_at) return clock(step.end_at)
  if (step.state !== 'upcoming') return 'now'
  return clock(earlier(step.due_at, step.likely_s))
}
/** A step can be told ahead of its turn, but never past a check. */
function canJump(step: Step): boolean {
  if (props.brief || step.state !== 'upcoming' || step.who === 'gate') return false
  const place = props.steps.indexOf(step)
  return !props.steps.slice(0, place).some((s) => s.gate === 'open')
}
function read(body: EventBody) {
  again.value = undefined
  emit('told', body)
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
      <StepMark :step="step" />
      <span class="at">{{ when(step) }}</span>
      <span class="name">
        {{ step.label }}<small v-if="!brief && words(step)">{{ words(step) }}</small>
      </span>
      <span v-if="brief || step.state === 'upcoming'" class="long">{{
        duration(step.likely_s)
      }}</span>
      <el-button
        v-if="canJump(step)"
        text
        class="jump"
        :aria-label="`${step.label} is done, skip to it`"
        @click="$emit('told', { kind: 'done', step: step.key })"
      >
        done already
      </el-button>
      <el-button
        v-if="!brief && step.gate === 'passed'"
        text
        class="jump"
        :data-test="`again-${step.key}`"
        @click="again = step"
      >
        read again
      </el-button>
    </li>
  </ol>
  <el-dialog
    v-if="!brief"
    :model-value="Boolean(again)"
    title="A newer reading counts"
    width="min(560px, 94vw)"
    class="kettle-dialog"
    @close="again = undefined"
  >
    <GateForm v-if="again?.check" :gate="again.check" @told="read" />
  </el-dialog>
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
  line-height: 1.2;
}
.estimated,
.unknown {
  font-style: italic;
}
.current,
.running {
  font-weight: 700;
}
.long {
  color: var(--kettle-ink-soft);
}
.jump {
  min-height: 44px;
  text-decoration: underline;
}
</style>
