<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Advice, type Dish, type Glaze, type Problem } from '@/api/client'
import { clockVerdict } from '@/shared/ui/glaze'
import { useDraft } from './draft'

/** No window by the clock is a state of its own: it stands beside Start, with what would open one. */
const props = defineProps<{ dish: Dish; glaze: Glaze }>()
const draft = useDraft()
const shut = computed(() => props.glaze.window.empty)
const key = computed(() => JSON.stringify({ ...props.dish, serve_at: null }))
const { data: advice } = useQuery<Advice, Problem>({
  queryKey: ['advice', key],
  queryFn: ({ signal }) =>
    fetched(api.POST('/api/v1/advice', { body: JSON.parse(key.value) as Dish, signal })),
  enabled: shut,
  staleTime: Infinity,
  retry: false,
})
const choice = computed(() => advice.value?.choice)
const better = computed(() => choice.value && choice.value.width_s > 0)
const take = () => draft.change(choice.value!.change as Partial<Dish>)
</script>

<template>
  <aside v-if="shut" class="repair no-print" role="status" data-test="no-window">
    <p class="says">
      <b>{{ clockVerdict(glaze)[0]!.toUpperCase() + clockVerdict(glaze).slice(1) }}.</b>
      <span v-if="better">{{ choice!.reason }}</span>
      <span v-else-if="advice?.none_safe">{{ advice.none_safe }}</span>
      <span v-else-if="advice">Look often: what you see is the better clock.</span>
      <span v-else class="quiet">Looking for a wider one…</span>
    </p>
    <el-button v-if="better" class="ember-button" data-test="take-repair" @click="take">
      Take it
    </el-button>
  </aside>
</template>

<style scoped>
.repair {
  display: flex;
  gap: 16px 24px;
  align-items: center;
  justify-content: space-between;
  padding: 12px 18px;
  margin: 0 0 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
}
.el-button {
  white-space: nowrap;
}
.says {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
}
@media (max-width: 640px) {
  .repair {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
