<script setup lang="ts">
import { computed } from 'vue'
import type { Chain, Choices } from '@/api/client'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import { useDraft } from './draft'

const props = defineProps<{ choices: Choices }>()
const draft = useDraft()
const food = computed(() => draft.chain!.food)
const cuts = computed(() => props.choices.cuts.map((cut) => ({ key: cut.key, text: cut.name })))
const cut = computed(() => props.choices.cuts.find((one) => one.key === food.value.cut))
/** What is bought by its bones weighs so much for each of them. */
const bones = computed(() => {
  const own = cut.value
  if (!own?.bones) return null
  const each = own.mass_kg / (own.pieces * own.bones)
  return { each, count: Math.round(food.value.mass_kg / each), apiece: own.bones }
})
const STATES = [
  { key: 'fridge', text: 'from the fridge' },
  { key: 'frozen', text: 'from frozen' },
] as const

function put(fields: Partial<Chain['food']>) {
  draft.edit((next) => Object.assign(next.food, fields))
}

/** Of a rack the bones are counted; the pieces follow. */
function counted(count: number | null) {
  if (!count || !bones.value) return
  const { each, apiece } = bones.value
  put({
    mass_kg: Math.round(100 * count * each) / 100,
    pieces: Math.max(1, Math.round(count / apiece)),
  })
}

/** Another cut comes with its usual weight, pieces and thickness. */
function another(key: string) {
  const cut = props.choices.cuts.find((one) => one.key === key)
  if (cut)
    put({
      cut: key,
      mass_kg: cut.mass_kg,
      pieces: cut.pieces,
      thickness_mm: cut.thickness_mm,
    })
}
</script>

<template>
  <div class="editor">
    <PickField
      :model-value="food.cut"
      label="what"
      :options="cuts"
      data-test="food-cut"
      @update:model-value="another"
    />
    <PickField
      :model-value="food.state ?? 'fridge'"
      label="where it comes from"
      :options="STATES"
      data-test="food-state"
      @update:model-value="put({ state: $event })"
    />
    <NumberField
      :model-value="food.mass_kg"
      label="weight"
      unit="kg"
      :step="0.1"
      data-test="food-mass"
      @update:model-value="$event !== null && put({ mass_kg: $event })"
    />
    <NumberField
      v-if="bones"
      :model-value="bones.count"
      label="or bones"
      unit=""
      :step="1"
      fixed
      data-test="food-bones"
      @update:model-value="counted"
    />
    <NumberField
      :model-value="food.pieces"
      label="pieces"
      unit=""
      :step="1"
      fixed
      @update:model-value="$event !== null && put({ pieces: $event })"
    />
    <NumberField
      :model-value="food.thickness_mm"
      label="thickness"
      unit="mm"
      :step="5"
      @update:model-value="$event !== null && put({ thickness_mm: $event })"
    />
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 14px;
}
</style>
