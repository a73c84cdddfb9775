<script setup lang="ts">
import { computed } from 'vue'
import type { EventBody, Live } from '@/api/client'
import { small } from '@/shared/format/words'

/** What is to be done beside the one thing: it blocks nothing. */
const props = defineProps<{ cook: Live }>()
defineEmits<{ told: [body: EventBody] }>()
const due = computed(() => props.cook.steps.filter((s) => props.cook.side_due.includes(s.key)))
const words = (who: string) => (who === 'machine' ? 'It is on' : 'Done')
</script>

<template>
  <div v-for="s in due" :key="s.key" class="side" role="status">
    <span>{{ s.who === 'machine' ? 'Now: ' : 'Meanwhile: ' }}{{ small(s.label) }}.</span>
    <el-button
      class="plain-button"
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
  border-radius: 14px;
  padding: 12px 18px;
  font-weight: 700;
}
</style>
