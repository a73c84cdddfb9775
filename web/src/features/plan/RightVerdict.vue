<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Chain, type ChainForecast, type Problem } from '@/api/client'
import type { components } from '@/api/schema'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useDraft } from './draft'
import { evenings } from '@/shared/format/share'
import { cost, GOOD_ENOUGH, weakest } from './right'

/** How often it comes out right, and the one change that helps most. */
const props = defineProps<{ forecast: ChainForecast; chain: Chain; stale: boolean }>()
const draft = useDraft()
const { here } = useKitchenFigures()
const often = computed(() => evenings(props.forecast.right.all_of_it))
const why = computed(() => weakest(props.forecast))
const key = computed(() => JSON.stringify({ ...props.chain, serve_at: null, name: '' }))
const { data: advice, isFetching } = useQuery<components['schemas']['ChainAdvicePublic'], Problem>({
  queryKey: ['repairs', here, key],
  queryFn: ({ signal }) =>
    fetched(api.POST('/api/v1/repairs', { body: JSON.parse(key.value) as Chain, signal })),
  enabled: computed(() => !props.stale && props.forecast.right.all_of_it < GOOD_ENOUGH),
  staleTime: Infinity,
  retry: false,
})
const repair = computed(() => (why.value ? advice.value?.repair : null))
</script>

<template>
  <aside class="right" :class="{ unsure: why }" data-test="right">
    <p>
      <b>Comes out right {{ often }}.</b>
      <span v-if="why">{{ ` ${why}` }}</span>
      <span v-if="isFetching && why" class="quiet" role="status"> Looking for a better way…</span>
    </p>
    <el-button
      v-if="repair"
      class="plain-button take no-print"
      data-test="take-repair"
      @click="draft.patch(repair.patch)"
    >
      {{ repair.says }}: {{ evenings(repair.right) }}, {{ cost(repair.longer_s) }}
    </el-button>
  </aside>
</template>

<style scoped>
.right {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
  justify-content: space-between;
  padding: 10px 18px;
  margin: 0 0 18px;
  border-radius: 14px;
  border: 2px solid var(--kettle-line);
}
.right.unsure {
  border-color: transparent;
  background: var(--kettle-careful-soft);
}
p {
  margin: 0;
  flex: 1 1 340px;
}
.take {
  min-height: 48px;
  font-weight: 700;
  background: var(--kettle-sheet);
}
</style>
