<script setup lang="ts">
/** What was just taken away, and the way back. */
defineProps<{ says: string }>()
defineEmits<{ undo: [] }>()
</script>

<template>
  <p class="undo" role="status">
    <span>{{ says }}</span>
    <el-button class="plain-button" data-test="undo-drop" @click="$emit('undo')">Undo</el-button>
  </p>
</template>

<style scoped>
.undo {
  display: flex;
  align-items: center;
  gap: 18px;
  margin: 12px 0;
}
</style>
