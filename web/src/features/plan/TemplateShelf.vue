<script setup lang="ts">
import type { Chain, Template } from '@/api/client'
import PlanCard from './PlanCard.vue'

defineProps<{ templates: Template[] }>()
defineEmits<{ pick: [Chain] }>()
</script>

<template>
  <ul class="card-shelf">
    <li v-for="t in templates" :key="t.key">
      <PlanCard
        :chain="t.document as Chain"
        :title="t.document.name ?? t.key"
        :says="t.hint"
        :data-test="`template-${t.key}`"
        @pick="$emit('pick', t.document as Chain)"
      />
    </li>
  </ul>
</template>
