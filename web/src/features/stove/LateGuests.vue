<script setup lang="ts">
/** Guests who come later: by how much. */
import { ref } from 'vue'

defineProps<{ name: string; sending?: boolean }>()
const emit = defineEmits<{ later: [minutes: number] }>()
const LATER_MIN = [10, 20, 30]
const asking = ref(false)

function tell(minutes: number) {
  asking.value = false
  emit('later', minutes)
}
</script>

<template>
  <el-button
    class="plain-button"
    :aria-expanded="asking"
    :disabled="sending"
    :data-test="name"
    @click="asking = !asking"
  >
    Guests are late
  </el-button>
  <div v-if="asking" class="minutes" role="group" aria-label="How much later">
    <el-button
      v-for="minutes in LATER_MIN"
      :key="minutes"
      class="plain-button"
      :data-test="`${name}-${minutes}`"
      @click="tell(minutes)"
    >
      {{ minutes }} min
    </el-button>
  </div>
</template>

<style scoped>
.minutes {
  grid-column: 1 / -1;
  display: flex;
  flex: 1;
  gap: 10px;
}
.minutes .el-button {
  flex: 1;
  margin: 0;
}
</style>
