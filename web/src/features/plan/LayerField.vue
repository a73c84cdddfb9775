<script setup lang="ts">
/** What goes on in a stage: a sauce of this chain, another from the shelf, or a dry layer. */
import { computed, ref } from 'vue'
import type { Chain, ChainStage, Choices, Problem } from '@/api/client'
import { useSauceShelf } from './useSauceShelf'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useDraft } from './draft'
import { dryLayer, layerIn, layerName, layerOf, putLayer, takesLayer, withoutLeft } from './layers'
import { find } from './stages'

const props = defineProps<{ id: string; stage: ChainStage; choices: Choices }>()
const draft = useDraft()
const shelf = useSauceShelf(() => props.choices)
const problem = ref<Problem>()
const NONE = 'none'
const NEW_DRY = 'new-dry'
const kind = computed(() => takesLayer(props.stage))
const own = computed(() =>
  (draft.chain?.layers ?? []).filter((one) => !!one.sauce === sauced.value),
)
const sauced = computed(() => kind.value === 'sauce')
const chosen = computed(() => layerIn(props.stage))
const layer = computed(() => own.value.find((one) => one.id === chosen.value))
const options = computed(() => {
  const here = own.value.map((one) => ({
    key: `layer:${one.id}`,
    text: layerName(draft.chain!, one.id, props.choices),
  }))
  if (!sauced.value)
    return [{ key: NONE, text: 'salt alone' }, ...here, { key: NEW_DRY, text: 'another rub' }]
  const taken = new Set(here.map((one) => one.text))
  const others = shelf.offers.value.filter((one) => !taken.has(one.text))
  return [
    ...here,
    ...others.map(({ key, text, hint }) => ({
      key,
      text: hint === 'yours' ? `${text}, yours` : text,
    })),
  ]
})

/** One change, to be taken back by one undo; what nothing uses any more goes with it. */
function change(layerFor: (next: Chain) => string | null) {
  const before = draft.chain!
  draft.edit((next) => {
    const to = layerFor(next)
    const at = find(next, props.id)
    if (at) at.list[at.place] = putLayer(at.list[at.place]!, to)
    withoutLeft(before, next)
  })
}

async function pick(key: string) {
  problem.value = undefined
  if (key === NONE) return change(() => null)
  if (key === NEW_DRY) return change(dryLayer)
  if (key.startsWith('layer:')) return change(() => key.slice(6))
  const { sauce, problem: wrong } = await shelf.take(key)
  problem.value = wrong
  if (sauce) change((next) => layerOf(next, sauce))
}

function put(fields: Record<string, unknown>) {
  draft.edit((next) => {
    const found = (next.layers ?? []).find((one) => one.id === chosen.value)
    if (found) Object.assign(found, fields)
  })
}
</script>

<template>
  <div class="layer">
    <PickField
      :model-value="chosen ? `layer:${chosen}` : NONE"
      :label="sauced ? 'which sauce' : 'what goes on'"
      :options="options"
      data-test="field-layer"
      @update:model-value="pick"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="layer && !sauced">
      <NumberField
        :model-value="layer.spice_g ?? 0"
        label="spice"
        unit="g"
        :step="5"
        data-test="field-spice"
        @update:model-value="put({ spice_g: $event ?? 0 })"
      />
      <NumberField
        :model-value="layer.sugar_g ?? 0"
        label="sugar"
        unit="g"
        :step="5"
        data-test="field-sugar"
        @update:model-value="put({ sugar_g: $event ?? 0 })"
      />
      <el-checkbox
        :model-value="layer.leavening ?? false"
        data-test="field-leavening"
        @update:model-value="put({ leavening: Boolean($event) })"
      >
        with baking powder
      </el-checkbox>
    </template>
  </div>
</template>

<style scoped>
.layer {
  display: grid;
  gap: 14px;
}
</style>
