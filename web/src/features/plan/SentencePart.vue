<script setup lang="ts">
import { ref } from 'vue'
import type { Choices, Dish, Fault } from '@/api/client'
import type { PartName } from './sentence'
import PartChooser from './PartChooser.vue'

const props = defineProps<{
  part: PartName
  text: string
  dish: Dish
  choices: Choices
  faults: Fault[]
}>()
const open = ref(false)

function given(fault: Fault): string {
  return fault.given && fault.given.length < 24 ? `${fault.given} will not do. ` : ''
}
</script>

<template>
  <el-popover
    v-model:visible="open"
    trigger="click"
    :width="360"
    placement="bottom-start"
    :persistent="false"
    :show-arrow="false"
    popper-class="part-chooser"
  >
    <template #reference>
      <button
        type="button"
        class="part"
        :class="{ wrong: faults.length }"
        :data-test="`part-${props.part}`"
        :aria-expanded="open"
        aria-haspopup="dialog"
      >
        {{ text }}
      </button>
    </template>
    <PartChooser :part="part" :dish="dish" :choices="choices" @done="open = false" />
  </el-popover>
  <span v-for="fault in faults" :key="fault.field" class="fault" role="alert"
    >{{ given(fault) }}Use {{ fault.accepted }}.</span
  >
</template>

<style scoped>
.part {
  border: 0;
  background: none;
  padding: 0 2px;
  margin: 0;
  font: inherit;
  color: var(--kettle-enamel);
  cursor: pointer;
  text-align: left;
  text-decoration: underline;
  text-decoration-color: var(--kettle-ember);
  text-decoration-thickness: 3px;
  text-underline-offset: 6px;
  border-radius: 6px;
}
:global(html.dark .part) {
  color: var(--kettle-enamel-soft);
}
.part:hover {
  background: var(--kettle-ember-soft);
}
.part.wrong {
  text-decoration-style: wavy;
  text-decoration-color: var(--kettle-stop);
  color: var(--kettle-stop);
}
.fault {
  display: inline-block;
  font: 700 1rem var(--kettle-text);
  color: var(--kettle-stop);
  background: var(--kettle-stop-soft);
  border-radius: 8px;
  padding: 2px 10px;
  margin: 0 4px;
  max-width: 30rem;
  vertical-align: middle;
}
</style>
