<script setup lang="ts">
import { ref, watch } from 'vue'
import { useTimeoutFn } from '@vueuse/core'
import type { EventBody, Step } from '@/api/client'
import { small } from '@/shared/format/words'

/** What is to be done beside the one thing: it blocks nothing. */
const props = defineProps<{ steps: Step[] }>()
defineEmits<{ told: [body: EventBody] }>()
const words = (who: string) => (who === 'machine' ? 'It is on' : 'Done')

/** What comes up in the place of another is not told by a tap that was meant for that one. */
const AIMED_MS = 700
const settled = ref(true)
const { start } = useTimeoutFn(() => (settled.value = true), AIMED_MS, { immediate: false })
watch(
  () => props.steps[0]?.key,
  (_, before) => {
    if (!before) return
    settled.value = false
    start()
  },
)
</script>

<template>
  <div v-for="s in steps" :key="s.key" class="side" role="status">
    <span>{{ s.who === 'machine' ? 'Now: ' : 'Meanwhile: ' }}{{ small(s.label) }}.</span>
    <el-button
      class="plain-button"
      :disabled="!settled"
      :data-test="`side-${s.key}`"
      @click="$emit('told', { kind: 'done', step: s.key })"
    >
      {{ words(s.who) }}
    </el-button>
  </div>
</template>

<style scoped>
.side {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  background: var(--kettle-ember-soft);
  color: var(--kettle-ink);
  border-radius: 14px;
  padding: 12px 18px;
  font-weight: 700;
}
.plain-button {
  white-space: nowrap;
}
</style>
