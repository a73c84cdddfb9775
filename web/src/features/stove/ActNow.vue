<script setup lang="ts">
/** What there is to do: one wide button, or the check that later steps wait for. */
import { computed, ref } from 'vue'
import type { EventBody, Live, Step } from '@/api/client'
import { useLive } from '@/features/live'
import { clock, secondsUntil } from '@/shared/format/time'
import GateForm from './GateForm.vue'
import ReturnNote from './ReturnNote.vue'
import StartEarly from './StartEarly.vue'
import TapNotes from './TapNotes.vue'

const props = defineProps<{ cook: Live; step?: Step }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const live = useLive()
const early = ref(false)
const button = ref<{ ref?: HTMLElement }>()
/** A machine's step is not to be told yet: its button waits until it is near. */
const NEAR_S = 60
const later = computed(
  () =>
    props.step?.who === 'machine' &&
    props.step.key !== 'wait' &&
    secondsUntil(props.step.due_at, live.nowOf(props.cook)) > NEAR_S,
)
const tell = (body: EventBody) => emit('told', body)
const since = () =>
  Math.max(0, -Math.round(secondsUntil(props.cook.fire!.since, live.nowOf(props.cook))))
/** What a device says is done: a person tells it, as of then. */
const offered = () => ({
  kind: 'done' as const,
  step: props.cook.offer!.step,
  ago_s: Math.max(0, -Math.round(secondsUntil(props.cook.offer!.at, live.nowOf(props.cook)))),
})

function done() {
  if (!props.step) return
  if (props.step.key === 'wait') early.value = true
  else tell({ kind: 'done', step: props.step.key })
}
defineExpose({ focus: () => button.value?.ref?.focus() })
</script>

<template>
  <div class="now">
    <div v-if="cook.fire?.assumed" class="ask" role="alert">
      <b>Is it under the heat?</b>
      <el-button
        class="wide-button"
        data-test="under-yes"
        @click="tell({ kind: 'done', step: cook.fire.put_by })"
      >
        Yes, just now
      </el-button>
      <el-button
        class="plain-button"
        @click="tell({ kind: 'done', step: cook.fire.put_by, ago_s: since() })"
      >
        Yes, since {{ clock(cook.fire.since) }}
      </el-button>
    </div>
    <ReturnNote v-if="cook.back" :back="cook.back" @told="tell" />
    <GateForm
      v-if="cook.gate"
      :key="cook.gate.step"
      :gate="cook.gate"
      :feels="cook.rehearsal?.feels"
      @told="tell"
    />
    <el-button
      v-else-if="cook.offer"
      ref="button"
      class="wide-button"
      data-test="done"
      @click="tell(offered())"
    >
      {{ cook.offer.button }} {{ clock(cook.offer.at) }}
    </el-button>
    <el-button
      v-else-if="step && cook.fire?.put_by !== step.key"
      ref="button"
      :class="[cook.fire?.assumed ? 'plain-button' : 'wide-button', { later }]"
      data-test="done"
      @click="done()"
    >
      {{ cook.button }}
    </el-button>
    <p v-if="cook.offer" class="quiet" data-test="offer">{{ cook.offer.says }}</p>
    <p v-if="cook.caution" class="caution" role="alert">
      {{ cook.caution }}
      <template v-if="cook.eat_by">Eaten or chilled by {{ clock(cook.eat_by) }}.</template>
    </p>
    <TapNotes :id="cook.id" />
    <StartEarly v-model="early" :cook="cook" @start="tell({ kind: 'done', step: 'wait' })" />
  </div>
</template>

<style scoped>
.now {
  display: grid;
  gap: 12px;
}
.ask {
  display: grid;
  gap: 10px;
  background: var(--kettle-stop-soft);
  padding: 16px;
  border-radius: 18px;
  font-size: 1.3rem;
}
.caution {
  margin: 0;
  padding: 12px 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
  color: var(--kettle-ink);
  font-weight: 700;
}
</style>
