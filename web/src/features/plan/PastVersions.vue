<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { api, ask, type Chain, type Problem } from '@/api/client'
import { clock, day } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useDraft } from './draft'

/** What this chain was before it was changed: one tap takes it back, and undo undoes that. */
const props = defineProps<{ planId: number; now: Date }>()
const draft = useDraft()
const open = ref(false)
const found = ref<{ version: number; title: string; dish: unknown; kept_at: string }[]>()
const problem = ref<Problem>()
const list = ref<HTMLElement>()
const opener = ref<{ $el: HTMLElement }>()

async function look() {
  const path = { id: props.planId }
  const answer = await ask(() => api.GET('/api/v1/plans/{id}/revisions', { params: { path } }))
  found.value = answer.data?.revisions
  problem.value = answer.problem
}

/** The focus goes to the newest, once it is there, and back to the button. */
async function enter() {
  await nextTick()
  list.value?.querySelector('button')?.focus()
}
watch(found, () => open.value && void enter())

function take(dish: unknown) {
  open.value = false
  draft.become(dish as Chain)
}
</script>

<template>
  <el-popover
    v-model:visible="open"
    :width="340"
    placement="bottom-start"
    :show-arrow="false"
    trigger="click"
    popper-class="part-chooser"
    @show="look"
    @after-enter="enter"
    @hide="opener?.$el.focus()"
  >
    <template #reference>
      <el-button ref="opener" class="plain-button" data-test="past">As it was</el-button>
    </template>
    <ProblemNote v-if="problem" :problem="problem" again @again="look" />
    <p v-else-if="!found" class="quiet" role="status">Looking…</p>
    <p v-else-if="!found.length" class="quiet">Nothing was kept before this.</p>
    <ul v-else ref="list" @keydown.esc.stop="open = false">
      <li v-for="one in found" :key="one.version">
        <el-button text data-test="take-back" @click="take(one.dish)">
          <span class="figure">{{ day(one.kept_at, now) }} {{ clock(one.kept_at) }}</span>
          <span class="quiet">{{ one.title }}</span>
        </el-button>
      </li>
    </ul>
  </el-popover>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 50vh;
  overflow: auto;
}
.el-button.is-text {
  width: 100%;
  min-height: 48px;
  justify-content: start;
}
.el-button.is-text :deep(span) {
  display: flex;
  gap: 12px;
  white-space: normal;
  text-align: left;
}
</style>
