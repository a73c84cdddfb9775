<script setup lang="ts">
import { computed } from 'vue'
import type { ChainStage, Choices } from '@/api/client'
import MinutesField from './MinutesField.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import LayerField from './LayerField.vue'
import { useDraft } from './draft'
import { layerOf, takesLayer, withoutLeft } from './layers'
import { changed, fieldsOf, find, read, roundsOf, sauceOf, type Field } from './stages'

const props = defineProps<{ id: string; choices: Choices }>()
const emit = defineEmits<{ done: [] }>()
const draft = useDraft()
const at = computed(() => draft.chain && find(draft.chain, props.id))
const stage = computed(() => at.value?.list[at.value.place])
const cut = computed(() => props.choices.cuts.find((one) => one.key === draft.chain?.food.cut))
const fields = computed(() =>
  stage.value
    ? fieldsOf(stage.value, props.choices.heats, cut.value, draft.chain?.food.state === 'frozen')
    : [],
)
const rounds = computed(() => draft.chain && roundsOf(draft.chain, props.id))
const last = computed(() => at.value && at.value.list.length === 1)

function put(field: Field, value: unknown) {
  const before = draft.chain!
  draft.edit((next) => {
    const here = find(next, props.id)
    if (!here) return
    const coat = field.key === 'acts.coat'
    const sauce = coat
      ? (sauceOf(next) ?? layerOf(next, props.choices.sauces[0]?.key as never))
      : undefined
    const old = here.list[here.place] as ChainStage
    here.list[here.place] = changed(old, field, value, props.choices.heats, sauce)
    withoutLeft(before, next)
  })
}

function repeat(times: number | null) {
  const id = rounds.value?.id
  if (!id || !times) return
  draft.edit((next) => {
    const found = next.stages.find((one) => one.id === id)
    if (found?.kind === 'rounds') found.times = times
  })
}

function takeOut() {
  draft.takeOut(props.id)
  emit('done')
}
</script>

<template>
  <div v-if="stage" class="editor">
    <LayerField v-if="takesLayer(stage)" :id="id" :stage="stage" :choices="choices" />
    <template v-for="field in fields" :key="field.key">
      <PickField
        v-if="field.options"
        :model-value="(read(stage, field) as string | null) ?? ''"
        :label="field.label"
        :options="field.options.map((o) => ({ key: o.value, text: o.text }))"
        :data-test="`field-${field.key}`"
        @update:model-value="put(field, $event)"
      />
      <el-checkbox
        v-else-if="field.as === 'yes'"
        :model-value="Boolean(read(stage, field) ?? field.key === 'hands')"
        :data-test="`field-${field.key}`"
        @update:model-value="put(field, Boolean($event))"
      >
        {{ field.label }}
      </el-checkbox>
      <MinutesField
        v-else-if="field.as === 'minutes'"
        :field="`field-${field.key}`"
        :label="field.label"
        :value="read(stage, field) as number[]"
        :hint="field.empty ?? 'minutes under the heat'"
        @change="put(field, $event)"
      />
      <div v-else-if="field.as === 'words'" class="words">
        <label :for="`words-${field.key}`">{{ field.label }}</label>
        <el-input
          :id="`words-${field.key}`"
          :model-value="read(stage, field) as string"
          maxlength="80"
          :data-test="`field-${field.key}`"
          @change="$event && put(field, $event)"
        />
      </div>
      <NumberField
        v-else
        :model-value="(read(stage, field) as number | null | undefined) ?? null"
        :label="field.label"
        :unit="field.unit ?? ''"
        :step="field.step ?? 1"
        :placeholder="field.empty ?? 'usual'"
        :data-test="`field-${field.key}`"
        @update:model-value="put(field, $event)"
      />
    </template>
    <NumberField
      v-if="rounds"
      :model-value="rounds.times"
      label="the whole round, how often"
      unit=""
      :step="1"
      fixed
      data-test="field-times"
      @update:model-value="repeat"
    />
    <div class="acts">
      <el-button class="plain-button" data-test="earlier" @click="draft.move(id, -1)">
        Earlier
      </el-button>
      <el-button class="plain-button" data-test="later" @click="draft.move(id, 1)">
        Later
      </el-button>
      <el-button v-if="!last" class="plain-button" data-test="take-out" @click="takeOut">
        Take it out
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 14px;
}
.words {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts .el-button {
  margin: 0;
}
</style>
