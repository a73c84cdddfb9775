<script setup lang="ts">
import { computed, ref } from 'vue'
import type { EventBody, Live } from '@/api/client'
import { clockWords, mainClock, SeenButtons, useLive } from '@/features/live'
import { clock, secondsUntil } from '@/shared/format/time'
import ReturnNote from './ReturnNote.vue'
import GateForm from './GateForm.vue'
import StartEarly from './StartEarly.vue'
import TapNotes from './TapNotes.vue'

/** The one thing to do now: a sentence, a clock where there is one, and one wide button. */
const props = defineProps<{ cook: Live; bare?: boolean }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const live = useLive()
const early = ref(false)
const step = computed(() => props.cook.steps.find((s) => s.key === props.cook.current))
const clockless = computed(() => !props.cook.fire && step.value?.who !== 'machine')
const urgent = computed(() => Boolean(props.cook.fire))
const tell = (body: EventBody) => emit('told', body)

function done(ago = 0) {
  if (!step.value) return
  if (step.value.key === 'wait') early.value = true
  else tell({ kind: 'done', step: step.value.key, ago_s: ago })
}
const since = () => Math.max(0, -Math.round(secondsUntil(props.cook.fire!.since, live.now)))
</script>

<template>
  <h1 class="says" data-test="says" aria-live="polite">{{ cook.says }}</h1>
  <p class="detail" data-test="detail">{{ cook.detail }}</p>
  <div v-if="!clockless" class="clock" :class="{ urgent }" role="timer" data-test="clock">
    <span class="figure main">{{ mainClock(cook, step, live.now) }}</span>
    <span class="caption figure">{{ clockWords(cook, step, live.now) }}</span>
  </div>
  <div v-if="cook.fire?.assumed" class="ask" role="alert">
    <b>Is it under the heat?</b>
    <el-button
      class="wide-button"
      data-test="under-yes"
      @click="tell({ kind: 'done', step: 'under' })"
    >
      Yes, just now
    </el-button>
    <el-button class="plain-button" @click="tell({ kind: 'done', step: 'under', ago_s: since() })">
      Yes, since {{ clock(cook.fire.since) }}
    </el-button>
  </div>
  <ReturnNote v-if="cook.back" :back="cook.back" @told="tell" />
  <GateForm v-if="cook.gate" :key="cook.gate.step" :gate="cook.gate" @told="tell" />
  <el-button v-else-if="step" class="wide-button" data-test="done" @click="done()">
    {{ cook.button }}
  </el-button>
  <SeenButtons
    v-if="cook.fire"
    :cook="cook"
    :bare="bare"
    @saw="(sign) => tell({ kind: 'saw', sign })"
  />
  <div class="small">
    <el-button
      v-if="step && !cook.gate && step.key !== 'wait'"
      class="plain-button"
      data-test="ago"
      @click="done(120)"
    >
      Two minutes ago
    </el-button>
    <el-button
      v-if="step?.who === 'machine' && step.key !== 'wait'"
      class="plain-button"
      data-test="more"
      @click="tell({ kind: 'extend', step: step!.key, seconds: 60 })"
    >
      Give it another minute
    </el-button>
    <el-button
      class="plain-button"
      :disabled="!cook.undoable"
      data-test="undo"
      @click="tell({ kind: 'undo' })"
    >
      Undo
    </el-button>
  </div>
  <p v-if="cook.caution" class="caution" role="alert">
    {{ cook.caution }}
    <template v-if="cook.eat_by">Eaten or chilled by {{ clock(cook.eat_by) }}.</template>
  </p>
  <TapNotes :id="cook.id" />
  <StartEarly v-model="early" :cook="cook" @start="tell({ kind: 'done', step: 'wait' })" />
</template>

<style scoped>
.says {
  font-size: 2.2rem;
  text-wrap: balance;
}
.detail {
  margin: 8px 0 0;
  font-size: 1.12rem;
  color: var(--kettle-ink-soft);
  min-height: 1.6em;
}
.clock {
  display: flex;
  align-items: baseline;
  gap: 22px;
  flex-wrap: wrap;
}
.main {
  font: 700 7rem/1 var(--kettle-display);
  letter-spacing: -0.03em;
  font-variant-numeric: tabular-nums;
}
.caption {
  font-size: 1.2rem;
}
.urgent .main {
  color: var(--kettle-ember);
}
.ask {
  display: grid;
  gap: 10px;
  background: var(--kettle-stop-soft);
  padding: 16px;
  border-radius: 18px;
  font-size: 1.3rem;
}
.small {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
}
.small .plain-button {
  min-height: 60px;
}
.caution {
  margin: 0;
  padding: 12px 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
  color: var(--kettle-ink);
  font-weight: 700;
}
@media (max-width: 860px) {
  .says {
    font-size: 1.7rem;
  }
  .main {
    font-size: 4.6rem;
  }
}
</style>
