<script setup lang="ts">
/** An underlined part of the sentence and its chooser: beside it, or on a phone a sheet from below. */
import { computed, nextTick, ref, watch } from 'vue'
import { onClickOutside, useMediaQuery } from '@vueuse/core'
import type { Choices, Dish, Fault } from '@/api/client'
import type { PartName } from './sentence'
import { useChooser } from './useChooser'
import PartChooser from './PartChooser.vue'

const props = defineProps<{
  part: PartName
  text: string
  dish: Dish
  choices: Choices
  faults: Fault[]
}>()
const chooser = useChooser()
const open = computed({
  get: () => chooser.open.value === props.part,
  set: (wanted: boolean) => {
    if (wanted) chooser.open.value = props.part
    else if (chooser.open.value === props.part) chooser.close()
  },
})
const phone = useMediaQuery('(max-width: 640px)')
const anchor = ref<HTMLElement>()
const button = ref<HTMLButtonElement>()
const inside = ref<InstanceType<typeof PartChooser>>()

onClickOutside(
  computed(() => (phone.value ? null : inside.value?.$el)),
  () => (open.value = false),
  { ignore: ['.part', '.el-popper'] },
)

// The focus goes into the chooser, and back to where it came from.
watch(open, async (now) => {
  await nextTick()
  if (!now && !chooser.open.value) button.value?.focus()
})

function given(fault: Fault): string {
  return fault.given && fault.given.length < 24 ? `${fault.given} will not do. ` : ''
}
</script>

<template>
  <span ref="anchor">
    <button
      ref="button"
      type="button"
      class="part"
      :class="{ wrong: faults.length }"
      :data-test="`part-${props.part}`"
      :aria-expanded="open"
      aria-haspopup="dialog"
      @click="open = !open"
    >
      {{ text }}
    </button>
  </span>
  <el-drawer
    v-if="phone"
    v-model="open"
    direction="btt"
    size="auto"
    :title="text"
    class="part-sheet"
    append-to-body
    destroy-on-close
    @opened="inside?.enter()"
  >
    <PartChooser ref="inside" :part="part" :dish="dish" :choices="choices" @done="open = false" />
  </el-drawer>
  <el-popover
    v-else
    :visible="open"
    virtual-triggering
    :virtual-ref="anchor"
    :width="360"
    placement="bottom-start"
    :persistent="false"
    :show-arrow="false"
    popper-class="part-chooser"
    @after-enter="inside?.enter()"
  >
    <PartChooser
      ref="inside"
      :part="part"
      :dish="dish"
      :choices="choices"
      @done="open = false"
      @keydown.esc.stop="open = false"
    />
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
@media (max-width: 640px) {
  .part {
    min-height: 44px;
  }
}
</style>
