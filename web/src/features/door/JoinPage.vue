<script setup lang="ts">
/** What a device sees that has not told the passcode yet. */
import { ref } from 'vue'
import type { Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

defineProps<{ problem?: Problem }>()
defineEmits<{ join: [passcode: string] }>()
const passcode = ref('')
</script>

<template>
  <form class="page join" @submit.prevent="$emit('join', passcode)">
    <h1>Whose kitchen is this?</h1>
    <p class="lead">
      Type the passcode that this kettle was started with, or scan the code that another device
      shows under Kitchen.
    </p>
    <label for="passcode">Passcode</label>
    <el-input
      id="passcode"
      v-model="passcode"
      type="password"
      show-password
      autocomplete="current-password"
      maxlength="200"
      autofocus
      data-test="passcode"
    />
    <el-button class="wide-button" native-type="submit" :disabled="!passcode" data-test="join">
      Come in
    </el-button>
    <ProblemNote v-if="problem" :problem="problem" />
  </form>
</template>

<style scoped>
.join {
  max-width: 560px;
  display: grid;
  gap: 14px;
  padding-top: 10vh;
}
.lead {
  margin: 0;
}
label {
  font-weight: 700;
}
.join :deep(.el-input__inner) {
  min-height: 56px;
  font-size: 1.3rem;
}
</style>
