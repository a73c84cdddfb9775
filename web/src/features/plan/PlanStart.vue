<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type Chain, type ChainForecast } from '@/api/client'
import StartDialog from './StartDialog.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useDraft } from './draft'

/** What is settled before a chain is cooked. */
const props = defineProps<{ forecast: ChainForecast; chain: Chain; now: Date }>()
const draft = useDraft()
const open = ref(false)
const dialog = ref<InstanceType<typeof StartDialog>>()

const SPEED = 20
const rehearsal = ref<{ speed: number; seed: null } | null>(null)

const send = (accepted: { stop: string; reason: string }[], when: 'now' | 'planned') =>
  ask(() =>
    api.POST('/api/v1/cooks', {
      body: {
        dish: props.chain,
        plan_id: draft.planId,
        when,
        accepted,
        rehearsal: rehearsal.value,
      },
    }),
  )
function begin() {
  rehearsal.value = null
  dialog.value?.begin()
}
/** The same, with simulated food on a clock of its own; nothing waits for its planned start. */
function rehearse() {
  rehearsal.value = { speed: SPEED, seed: null }
  dialog.value?.begin(true)
}
const busy = () => Boolean(dialog.value?.busy)
defineExpose({ begin, rehearse, busy })
</script>

<template>
  <ProblemNote v-if="dialog?.problem && !open" :problem="dialog.problem" />
  <StartDialog
    ref="dialog"
    v-model="open"
    :forecast="forecast"
    :serve-at="chain.serve_at"
    :send="send"
    :now="now"
    @repair="draft.patch($event as Record<string, unknown>[])"
  />
</template>
