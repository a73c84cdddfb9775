<script setup lang="ts" generic="K extends string | number | null">
import { useId } from 'vue'
import { useMediaQuery } from '@vueuse/core'

/** One of many in a list that opens. `text` says what each is; `key` is what is kept. */
const value = defineModel<K>({ required: true })
defineProps<{
  label: string
  options: readonly { key: K; text: string }[]
  placeholder?: string
  beside?: boolean
}>()
defineOptions({ inheritAttrs: false })
const MANY = 8 // from here on a name is found sooner by writing it
const keyboard = useMediaQuery('(pointer: fine)')
const id = useId()
</script>

<template>
  <div class="pick" :class="{ beside }">
    <label :for="id">{{ label }}</label>
    <el-select
      :id="id"
      v-model="value"
      v-bind="$attrs"
      :empty-values="placeholder ? [undefined, ''] : [undefined]"
      :placeholder="placeholder ?? ''"
      :filterable="keyboard && options.length >= MANY"
      default-first-option
      popper-class="pick-list"
    >
      <el-option v-for="o in options" :key="String(o.key)" :value="o.key!" :label="o.text" />
    </el-select>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: 4px;
  min-width: min(200px, 100%);
}
.beside {
  grid-template-columns: auto minmax(200px, 1fr);
  gap: 12px;
  align-items: center;
}
label {
  font-weight: 700;
}
</style>
