<script setup lang="ts">
/** Hands that are wanted at night: told, with one tap that leaves the cook asleep. */
import { computed } from 'vue'
import type { Schedule } from '@/api/client'
import { clock, day } from '@/shared/format/time'
import { wokenBy, type Away } from './nights'

const props = defineProps<{ tasks: Schedule['tasks']; now: Date }>()
defineEmits<{ sleep: [nights: Away[]] }>()
const woken = computed(() => wokenBy(props.tasks, props.now))
const when = computed(() => {
  const at = woken.value?.at
  return at && `at ${clock(at)} ${day(at, props.now)}`.replace(' today', '')
})
const hours = computed(() => {
  const night = woken.value?.nights[0]
  return night && `${clock(night.start)} to ${clock(night.end)}`
})
</script>

<template>
  <p v-if="woken" class="night no-print" role="status" data-test="night-note">
    <span>Hands are wanted {{ when }}.</span>
    <el-button class="plain-button" data-test="sleep" @click="$emit('sleep', woken.nights)">
      Asleep {{ hours }}
    </el-button>
  </p>
</template>

<style scoped>
.night {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin: 0 0 12px;
}
</style>
