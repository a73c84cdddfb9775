<script setup lang="ts">
import { ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { api, ask, type Live, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** Allergens of what is cooking, and the way out of a cook. */
const props = defineProps<{ cook: Live }>()
const live = useLive()
const client = useQueryClient()
const problem = ref<Problem>()

async function stop() {
  const { problem: found } = await ask(() =>
    api.POST('/api/v1/cooks/{id}/stop', { params: { path: { id: props.cook.id } } }),
  )
  problem.value = found
  await client.invalidateQueries({ queryKey: ['cook', props.cook.id] })
  await client.invalidateQueries({ queryKey: ['kitchen'] }) // its signs teach
  await live.refresh()
}
</script>

<template>
  <footer>
    <p
      v-if="cook.allergens.length || cook.allergens_unknown.length"
      class="allergens"
      data-test="allergens"
    >
      <b v-if="cook.allergens.length">Contains {{ cook.allergens.join(', ') }}.</b>
      <span v-if="cook.allergens_unknown.length">
        Not known of: {{ cook.allergens_unknown.join('; ') }}.
      </span>
    </p>
    <el-button text class="stop" data-test="stop" @click="stop">Stop this cook</el-button>
    <ProblemNote v-if="problem" :problem="problem" />
  </footer>
</template>

<style scoped>
.allergens {
  margin: 14px 0 0;
}
.stop {
  min-height: 44px;
  padding-left: 0;
  color: var(--kettle-ink-soft);
}
</style>
