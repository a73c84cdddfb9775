<script setup lang="ts">
/** What is wrong with a plan that has no answer yet: each fault with the field that mends it. */
import { computed } from 'vue'
import type { Choices, Fault } from '@/api/client'
import FoodEditor from './FoodEditor.vue'
import ServeField from '@/shared/ui/ServeField.vue'
import StageEditor from './StageEditor.vue'
import { useDraft } from './draft'
import { stageAt } from './stages'

const props = defineProps<{ faults: Fault[]; choices: Choices }>()
const draft = useDraft()
const places = computed(() => {
  const chain = draft.chain
  if (!chain) return []
  const found = props.faults.map((fault) => {
    if (fault.field === 'serve_at') return 'serve'
    return fault.field.startsWith('food') ? 'food' : (stageAt(chain, fault.field) ?? '')
  })
  return [...new Set(found)].filter(Boolean)
})
const serveAt = (moment: string | null) => draft.edit((next) => (next.serve_at = moment))
</script>

<template>
  <section class="faults">
    <p v-for="fault in faults" :key="fault.field" role="alert">
      <b>{{ fault.given }} will not do.</b> Use {{ fault.accepted }}.
      <small>{{ fault.field }}</small>
    </p>
    <div v-for="place in places" :key="place" class="place">
      <FoodEditor v-if="place === 'food'" :choices="choices" />
      <ServeField
        v-else-if="place === 'serve'"
        :serve-at="draft.chain?.serve_at ?? null"
        @change="serveAt"
      />
      <StageEditor v-else :id="place" :choices="choices" />
    </div>
  </section>
</template>

<style scoped>
p {
  margin: 0 0 6px;
  color: var(--kettle-stop);
}
small {
  color: var(--kettle-ink-soft);
}
.place {
  max-width: 420px;
  margin-top: 14px;
}
</style>
