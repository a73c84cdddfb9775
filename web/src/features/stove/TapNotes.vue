<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '@/features/live'

/** Taps that wait for the server, and taps that it refused: each is read before it goes. Those of one
 * cook, or of one line of a supper. */
const props = defineProps<{ id?: number; line?: string; quiet?: boolean }>()
const live = useLive()
const refused = computed(() =>
  live.refusals.filter((one) =>
    props.line === undefined ? one.cook === props.id : one.side?.line === props.line,
  ),
)
</script>

<template>
  <p v-if="live.waiting && !quiet" class="note quiet" role="status" data-test="waiting">
    {{ live.waiting }} tap{{ live.waiting === 1 ? '' : 's' }} waiting for the kettle.
  </p>
  <p v-for="one in refused" :key="one.id" class="note no" role="alert" data-test="refused">
    <span>Not taken: {{ one.why }}.</span>
    <el-button class="plain-button" @click="live.forget(one.id)">All right</el-button>
  </p>
</template>

<style scoped>
.note {
  margin: 0;
}
.no {
  display: flex;
  gap: 16px;
  align-items: center;
  justify-content: space-between;
  padding: 10px 16px;
  border-radius: 12px;
  background: var(--kettle-stop-soft);
}
</style>
