<script setup lang="ts">
import { computed } from 'vue'
import type { Problem } from '@/api/client'

const props = defineProps<{ problem: Problem; again?: boolean }>()
defineEmits<{ again: [] }>()
const UNITS = /_(kg|g|mg|l|ml|m|m2|mm|c|w|kpa|min|s|w_m2|kwh)$/
/** "lines.0.mass_g" is "lines, 1, mass"; units are left to what is accepted. */
const faults = computed(() =>
  (props.problem.errors ?? []).map((f) => ({
    ...f,
    what: f.field
      .split('.')
      .map((p) =>
        /^\d+$/.test(p) ? String(Number(p) + 1) : p.replace(UNITS, '').replaceAll('_', ' '),
      )
      .join(', '),
  })),
)
</script>

<template>
  <div class="problem" role="alert">
    <strong>{{ problem.title }}.</strong>
    <span v-if="!faults.length">{{ problem.detail }}</span>
    <span v-for="f in faults" :key="f.field"
      ><b>{{ f.what }}</b
      >: {{ f.given ? `“${f.given}” will not do. ` : '' }}Use {{ f.accepted }}.</span
    >
    <el-button v-if="again" class="plain-button" @click="$emit('again')"> Try again </el-button>
  </div>
</template>

<style scoped>
.problem {
  border-left: 6px solid var(--kettle-stop);
  background: var(--kettle-stop-soft);
  padding: 14px 18px;
  border-radius: 0 12px 12px 0;
  margin: 16px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
</style>
