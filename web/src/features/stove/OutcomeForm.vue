<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useQueryClient } from '@tanstack/vue-query'
import { api, ask, type Live, type Outcome, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ cook: Live }>()
defineEmits<{ undo: [] }>()
const router = useRouter()
const client = useQueryClient()
const live = useLive()
const said = ref<Partial<Outcome>>({})
const note = ref('')
const problem = ref<Problem>()
const saving = ref(false)
const questions = [
  {
    field: 'tenderness',
    ask: 'How tender was it?',
    options: {
      tough: 'tough',
      sliceable: 'sliced cleanly',
      tug: 'a little tug',
      falls: 'fell apart',
      shreds: 'shredded',
      mushy: 'mushy',
    },
  },
  {
    field: 'crust',
    ask: 'The crust?',
    options: { soft: 'soft', sticky: 'sticky', crackling: 'crackling', hard: 'hard' },
  },
  {
    field: 'colour',
    ask: 'The colour?',
    options: {
      pale: 'pale',
      amber: 'amber',
      mahogany: 'mahogany',
      bitter: 'bitter',
      burnt: 'burnt',
    },
  },
] as const
/** What was only rehearsed is asked nothing, unless it is to stand in the log. */
const logged = computed(() => !props.cook.rehearsal || props.cook.rehearsal.kept)
const title = computed(() => {
  if (!logged.value) return 'The rehearsal is over.'
  return props.cook.ended_at ? 'It is in the log.' : 'How was it?'
})
/** The colour tells of the fire that the food was under. */
const learns = computed(() => !props.cook.rehearsal && props.cook.steps.some((s) => s.fire))
/** One answer is enough: what nobody says stays open. */
const answered = computed(() => questions.some((q) => said.value[q.field]) || note.value.trim())

async function finish(request: () => Promise<{ data?: unknown; error?: unknown }>) {
  saving.value = true
  const { data, problem: found } = await ask(request)
  saving.value = false
  problem.value = found
  if (!data) return
  await client.invalidateQueries({ queryKey: ['cook', props.cook.id] })
  await client.invalidateQueries({ queryKey: ['log'] })
  await client.invalidateQueries({ queryKey: ['kitchen'] }) // its signs teach
  await live.refresh()
  void router.push(logged.value ? `/log/${props.cook.id}` : '/plan')
}
const path = { params: { path: { id: props.cook.id } } }
const save = () =>
  finish(() =>
    api.PUT('/api/v1/cooks/{id}/outcome', {
      ...path,
      body: { ...said.value, note: note.value } as Outcome,
    }),
  )
/** A rehearsal stands in the log only where somebody wants it there. */
async function keep(kept: boolean) {
  const { data, problem: found } = await ask(() =>
    api.PUT('/api/v1/cooks/{id}/rehearsal', { ...path, body: { kept } }),
  )
  problem.value = found
  if (data) live.taken(data)
}
const leave = () => finish(() => api.POST('/api/v1/cooks/{id}/stop', path))
</script>

<template>
  <section class="outcome">
    <h1>{{ title }}</h1>
    <p v-if="cook.ended_at && logged">
      <RouterLink :to="`/log/${cook.id}`">See it there</RouterLink>, or say
      {{ cook.rated ? 'again' : '' }} how it was.
    </p>
    <ul v-if="cook.rehearsal?.verdicts.length" class="verdicts" data-test="verdicts">
      <li v-for="line in cook.rehearsal.verdicts" :key="line">{{ line }}</li>
    </ul>
    <el-checkbox
      v-if="cook.rehearsal"
      :model-value="cook.rehearsal.kept"
      data-test="keep-rehearsal"
      @update:model-value="keep(Boolean($event))"
    >
      Keep this rehearsal in the log
    </el-checkbox>
    <template v-if="logged">
      <fieldset v-for="q in questions" :key="q.field">
        <legend :id="`ask-${q.field}`">
          {{ q.ask }}
          <span v-if="q.field === 'colour' && learns" class="quiet">
            The next plan may learn from it.
          </span>
        </legend>
        <el-radio-group
          :model-value="said[q.field] ?? ''"
          class="options"
          :aria-labelledby="`ask-${q.field}`"
          @update:model-value="said = { ...said, [q.field]: $event }"
        >
          <el-radio-button
            v-for="(text, option) in q.options"
            :key="option"
            :value="option"
            :data-test="`${q.field}-${option}`"
          >
            {{ text }}
          </el-radio-button>
        </el-radio-group>
      </fieldset>
      <label for="outcome-note">A note for the next time</label>
      <el-input
        id="outcome-note"
        v-model="note"
        type="textarea"
        :rows="3"
        maxlength="2000"
        data-test="note"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <el-button
        class="wide-button"
        :disabled="!answered || saving"
        data-test="save-outcome"
        @click="save"
      >
        Into the log
      </el-button>
    </template>
    <ProblemNote v-else-if="problem" :problem="problem" />
    <div v-if="!cook.ended_at" class="two">
      <el-button class="plain-button" data-test="undo-last" @click="$emit('undo')"
        >Undo the last tap</el-button
      >
      <el-button class="plain-button" :disabled="saving" data-test="unrated" @click="leave">
        {{ logged ? 'Leave it unrated' : 'Enough' }}
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.outcome {
  display: grid;
  gap: 18px;
  max-width: 860px;
}
h1 {
  font-size: 2.2rem;
}
.verdicts {
  margin: 0;
  padding: 14px 20px;
  list-style: none;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
  font: 700 1.2rem var(--kettle-display);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend,
label {
  font: 700 1.2rem var(--kettle-display);
  padding: 0 0 8px;
}
legend .quiet {
  font-weight: 400;
  font-size: 1rem;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 10px;
}
</style>
