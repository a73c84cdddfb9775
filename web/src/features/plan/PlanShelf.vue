<script setup lang="ts">
import { computed, ref } from 'vue'
import { refDebounced } from '@vueuse/core'
import type { Dish } from '@/api/client'
import { day } from '@/shared/format/time'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import { useDraft } from './draft'
import { usePlans } from './usePlans'

/** The other plans that are kept: to open, to find, to let go. */
const props = defineProps<{ current: number | null }>()
const draft = useDraft()
const search = ref('')
const { plans, aside, more, next, problem, letGo, dropped, undo, refresh } = usePlans(
  refDebounced(search, 250),
  'kettle.dish/1',
)
type Plan = NonNullable<typeof plans.value>[number]
const others = computed(() => plans.value?.filter((plan) => plan.id !== props.current) ?? [])

const open = (plan: Plan) => draft.begin(plan.dish as unknown as Dish, plan.id, plan.version)
</script>

<template>
  <details v-if="others.length || search || aside.length || dropped" class="shelf no-print">
    <summary data-test="other-plans">Other plans</summary>
    <el-input
      v-model="search"
      clearable
      placeholder="find a plan by its name"
      aria-label="Find a plan by its name"
      data-test="plan-search"
    />
    <ProblemNote v-if="problem" :problem="problem" again @again="refresh" />
    <UndoNote v-if="dropped" :says="`“${dropped.title}” is deleted.`" @undo="undo" />
    <AsideNote :records="aside" />
    <ul>
      <li v-for="plan in others" :key="plan.id">
        <el-button text class="title" :data-test="`plan-${plan.id}`" @click="open(plan)">
          {{ plan.title }}
        </el-button>
        <span class="quiet">{{ day(plan.updated_at, new Date()) }}</span>
        <el-button text :aria-label="`Delete “${plan.title}”`" @click="letGo(plan)">
          Delete
        </el-button>
      </li>
    </ul>
    <el-button v-if="more" class="plain-button" @click="next()">More</el-button>
  </details>
</template>

<style scoped>
.shelf {
  margin-top: 24px;
}
summary {
  cursor: pointer;
  padding: 12px 0;
  font: 700 1.15rem var(--kettle-display);
}
.el-input {
  width: min(340px, 100%);
  --el-input-height: 46px;
}
ul {
  list-style: none;
  margin: 10px 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  border-bottom: 1px solid var(--kettle-line);
}
.title {
  flex: 1;
  justify-content: start;
  font-size: 1.05rem;
  white-space: normal;
  text-align: left;
}
li .el-button {
  min-height: 44px;
}
</style>
