<script setup lang="ts">
/** From a page about the plan in hand, back to it. */
import { useDraft } from './draft'

const draft = useDraft()
</script>

<template>
  <RouterLink :to="draft.planId ? `/plan/${draft.planId}` : '/plan'" class="plain-button el-button">
    Back to the plan
  </RouterLink>
</template>
