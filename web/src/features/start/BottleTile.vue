<script setup lang="ts">
import { onMounted, ref } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import type { Label } from './useTaps'

/** A bottle of which only the label is known: three figures make a sauce of it. */
const emit = defineEmits<{ take: [label: Label] }>()
const name = ref('Bottled sauce')
const serving = ref<number | null>(30)
const sugars = ref<number | null>(10)
const sodium = ref<number | null>(300)
const form = ref<HTMLFormElement>()
onMounted(() => {
  form.value?.scrollIntoView?.({ block: 'nearest' })
  form.value?.querySelector('input')?.select()
})

function take() {
  if (serving.value === null || sugars.value === null || sodium.value === null) return
  emit('take', {
    name: name.value.trim() || 'Bottled sauce',
    serving_g: serving.value,
    sugars_g: sugars.value,
    sodium_mg: sodium.value,
  })
}
</script>

<template>
  <form ref="form" class="label" @submit.prevent="take">
    <div class="name">
      <label for="bottle-name">What it is called</label>
      <el-input id="bottle-name" v-model="name" maxlength="80" data-test="bottle-name" />
    </div>
    <NumberField v-model="serving" fixed label="One serving" unit="g" :step="5" />
    <NumberField
      v-model="sugars"
      fixed
      label="Sugars in it"
      unit="g"
      :step="1"
      data-test="bottle-sugars"
    />
    <NumberField v-model="sodium" fixed label="Sodium in it" unit="mg" :step="10" />
    <el-button native-type="submit" class="ember-button" data-test="bottle-take">
      Take this bottle
    </el-button>
  </form>
</template>

<style scoped>
.label {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: end;
  margin-top: 16px;
  padding-top: 16px;
  border-top: 2px solid var(--kettle-line);
}
.name {
  display: grid;
  gap: 4px;
  min-width: min(240px, 100%);
}
label {
  font-weight: 700;
}
</style>
