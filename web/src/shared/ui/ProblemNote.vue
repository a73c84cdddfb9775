<script setup lang="ts">
import type { Problem } from '@/api/client'

defineProps<{ problem: Problem; again?: boolean }>()
defineEmits<{ again: [] }>()
</script>

<template>
  <div class="problem" role="alert">
    <strong>{{ problem.title }}.</strong> {{ problem.detail }}
    <button v-if="again" type="button" class="plain-button" @click="$emit('again')">Try again</button>
  </div>
</template>

<style scoped>
.problem {
  border-left: 6px solid var(--kettle-stop); background: var(--kettle-stop-soft); padding: 14px 18px; border-radius: 0 12px 12px 0;
  margin: 16px 0; display: flex; flex-wrap: wrap; gap: 12px; align-items: center;
}
</style>
