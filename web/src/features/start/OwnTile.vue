<script setup lang="ts">
import { ref } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import type { Tap } from './taps'

/** A figure of one's own in place of the offered ones. */
const props = defineProps<{ own: NonNullable<Tap['own']>; told?: string }>()
const emit = defineEmits<{ pick: [key: string] }>()
const value = ref<number | null>(props.told ? Number(props.told) : props.own.usual)
</script>

<template>
  <form class="own" @submit.prevent="value !== null && emit('pick', String(value))">
    <NumberField
      v-model="value"
      :label="own.label"
      :unit="own.unit"
      :step="own.step"
      data-test="own"
    />
    <el-button native-type="submit" class="plain-button" data-test="own-take">That much</el-button>
  </form>
</template>

<style scoped>
.own {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
</style>
