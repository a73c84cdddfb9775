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

const send = (accepted: { stop: string; reason: string }[], when: 'now' | 'planned') =>
  ask(() =>
    api.POST('/api/v1/cooks', {
      body: { dish: props.chain, plan_id: draft.planId, when, accepted },
    }),
  )
const begin = () => dialog.value?.begin()
const busy = () => Boolean(dialog.value?.busy)
defineExpose({ begin, busy })
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
