<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Live, type Outcome, type Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ live: Live }>()
defineEmits<{ undo: [] }>()
const router = useRouter()
const said = ref<Partial<Outcome>>({})
const note = ref('')
const problem = ref<Problem>()
const saving = ref(false)
const questions = [
  {
    field: 'tenderness',
    ask: 'How did it eat?',
    options: ['tough', 'tug', 'falls', 'shreds', 'mushy'],
  },
  { field: 'crust', ask: 'The crust?', options: ['soft', 'sticky', 'crackling', 'hard'] },
  {
    field: 'colour',
    ask: 'The colour?',
    options: ['pale', 'amber', 'mahogany', 'too dark', 'burnt'],
  },
] as const
const shown: Record<string, string> = {
  tug: 'a little tug',
  falls: 'fell apart',
  shreds: 'shredded',
}
const complete = computed(() => questions.every((q) => said.value[q.field]))

async function save() {
  saving.value = true
  const body = { ...said.value, note: note.value } as Outcome
  const { data, problem: found } = await ask(() =>
    api.PUT('/api/v1/cooks/{id}/outcome', { params: { path: { id: props.live.id } }, body }),
  )
  saving.value = false
  problem.value = found
  if (data) void router.push(`/log/${props.live.id}`)
}
</script>

<template>
  <section class="outcome">
    <h1>{{ live.ended_at ? 'It is in the log.' : 'How was it?' }}</h1>
    <p v-if="live.ended_at">
      <RouterLink :to="`/log/${live.id}`">See it there</RouterLink>, or say again how it was.
    </p>
    <fieldset v-for="q in questions" :key="q.field">
      <legend>{{ q.ask }}</legend>
      <div class="options" role="radiogroup" :aria-label="q.ask">
        <button
          v-for="option in q.options"
          :key="option"
          type="button"
          role="radio"
          :aria-checked="said[q.field] === option"
          :class="{ on: said[q.field] === option }"
          class="plain-button"
          :data-test="`${q.field}-${option}`"
          @click="said = { ...said, [q.field]: option }"
        >
          {{ shown[option] ?? option }}
        </button>
      </div>
    </fieldset>
    <label for="outcome-note">A note for the next time</label>
    <textarea id="outcome-note" v-model="note" rows="3" maxlength="2000" data-test="note" />
    <ProblemNote v-if="problem" :problem="problem" />
    <button
      type="button"
      class="wide-button"
      :disabled="!complete || saving"
      data-test="save-outcome"
      @click="save"
    >
      Into the log
    </button>
    <button v-if="!live.ended_at" type="button" class="plain-button" @click="$emit('undo')">
      Undo the last tap
    </button>
  </section>
</template>

<style scoped>
.outcome {
  display: grid;
  gap: 18px;
  max-width: 820px;
}
h1 {
  font-size: 2.2rem;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend,
label {
  font: 700 1.2rem var(--kettle-display);
  padding: 0 0 8px;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.options .plain-button {
  min-height: 64px;
  min-width: 120px;
  font-size: 1.1rem;
}
.on {
  background: var(--kettle-ember);
  color: var(--kettle-ember-ink);
  border-color: var(--kettle-ember);
  font-weight: 700;
}
textarea {
  width: 100%;
  border-radius: 14px;
  border: 2px solid var(--kettle-line);
  padding: 12px;
  font-size: 1.05rem;
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
}
p {
  margin: 0;
}
</style>
