<script setup lang="ts">
import { computed } from 'vue'
import type { ChainHeat, ChainStage } from '@/api/client'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import { useChainDraft } from './draft'
import { changed, fieldsOf, find, offers, read, sauceOf, type Field } from './stages'

const props = defineProps<{ id: string; heats: ChainHeat[] }>()
const emit = defineEmits<{ done: [] }>()
const draft = useChainDraft()
const at = computed(() => draft.chain && find(draft.chain, props.id))
const stage = computed(() => at.value?.list[at.value.place])
const sauce = computed(() => draft.chain && sauceOf(draft.chain))
const fields = computed(() =>
  stage.value ? fieldsOf(stage.value, props.heats, sauce.value || undefined) : [],
)
const after = computed(() => (draft.chain ? offers(draft.chain) : []))
const last = computed(() => at.value && at.value.list.length === 1)

function put(field: Field, value: unknown) {
  if (stage.value)
    draft.replaceStage(
      props.id,
      changed(stage.value as ChainStage, field, value, props.heats, sauce.value || undefined),
    )
}

function act(what: () => void) {
  what()
  emit('done')
}
</script>

<template>
  <div v-if="stage" class="editor">
    <template v-for="field in fields" :key="field.key">
      <PickField
        v-if="field.options"
        :model-value="read(stage, field) as string"
        :label="field.label"
        :options="field.options.map((o) => ({ key: o.value, text: o.text }))"
        :data-test="`field-${field.key}`"
        @update:model-value="put(field, $event)"
      />
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
    <div class="acts">
      <el-button class="plain-button" data-test="earlier" @click="draft.move(id, -1)">
        Earlier
      </el-button>
      <el-button class="plain-button" data-test="later" @click="draft.move(id, 1)">
        Later
      </el-button>
      <el-button
        v-if="!last"
        class="plain-button"
        data-test="take-out"
        @click="act(() => draft.takeOut(id))"
      >
        Take it out
      </el-button>
    </div>
    <p class="then">And after it:</p>
    <div class="acts">
      <el-button
        v-for="offer in after"
        :key="offer.text"
        class="plain-button"
        :data-test="`offer-${offer.stage.kind}`"
        @click="act(() => draft.putAfter(id, offer.stage))"
      >
        {{ offer.text }}
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 14px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts .el-button {
  margin: 0;
}
.then {
  margin: 0;
  font-weight: 700;
}
</style>
