<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, type Analysis, type Problem, type Variant } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ColourLadder from './ColourLadder.vue'

/** Sugar-free, less salt, milder, without an allergen: what changes in the list, and in the strip. */
const props = defineProps<{ body: Record<string, unknown>; analysis: Analysis }>()
const emit = defineEmits<{ use: [lines: string[]] }>()
const chosen = ref('')
const found = ref<Variant>()
const problem = ref<Problem>()
const names = computed(() => [
  'sugar-free',
  'less salt',
  'milder',
  ...props.analysis.allergens.map((a) => `without ${a.name}`),
])

async function show(name: string) {
  chosen.value = name
  const answer = await ask(() =>
    api.POST('/api/v1/sauces/variants', { body: { ...props.body, variant: name } as never }),
  )
  problem.value = answer.problem
  found.value = answer.data
}
</script>

<template>
  <div class="panel">
    <div class="names">
      <el-button
        v-for="name in names"
        :key="name"
        class="plain-button"
        :class="{ on: chosen === name }"
        :aria-pressed="chosen === name"
        :data-test="`variant-${name}`"
        @click="show(name)"
      >
        {{ name }}
      </el-button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="found">
      <p v-if="!found.changes.length && !found.stays.length">
        Nothing to change: it is {{ found.variant }} already.
      </p>
      <ul v-else>
        <li v-for="c in found.changes" :key="c">{{ c }}</li>
        <li v-for="s in found.stays" :key="s" class="stays">{{ s }}</li>
      </ul>
      <ColourLadder
        v-if="found.analysis.ladder.length"
        :ladder="found.analysis.ladder"
        :dials="found.analysis.dials"
      />
      <el-button
        v-if="found.changes.length"
        class="plain-button use"
        data-test="use-variant"
        @click="emit('use', found.lines)"
      >
        Use these amounts
      </el-button>
    </template>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.names {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.on {
  background: var(--kettle-enamel);
  color: var(--kettle-paper);
  border-color: var(--kettle-enamel);
}
html.dark .on {
  color: var(--kettle-ink);
}
ul {
  margin: 0;
  padding-left: 20px;
}
.stays {
  color: var(--kettle-careful);
}
.use {
  justify-self: start;
}
p {
  margin: 0;
}
</style>
