<script setup lang="ts">
/** The whole cook as one sentence. Every clause is a stage, and opens beside it or from below. */
import { computed, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { ChainForecast, Choices, Fault } from '@/api/client'
import ServeField from '@/features/plan/ServeField.vue'
import { serveText } from '@/features/plan/sentence'
import FoodEditor from './FoodEditor.vue'
import StageEditor from './StageEditor.vue'
import { useChainDraft } from './draft'
import { stageAt } from './stages'

const props = defineProps<{
  forecast: ChainForecast
  choices: Choices
  faults: Fault[]
  now: Date
}>()
const SERVE = 'serve'
const draft = useChainDraft()
const open = ref<string>()
const phone = useMediaQuery('(max-width: 640px)')
const wrong = computed(() =>
  props.faults.map((fault) =>
    fault.field === 'serve_at' ? SERVE : (draft.chain && stageAt(draft.chain, fault.field)) || '-',
  ),
)
/** What was said of a stage before it went wrong. */
const about = (fault: Fault) => {
  const stage = draft.chain && stageAt(draft.chain, fault.field)
  const said = props.forecast.sentence.find((one) => one.stage.replace(/\.[1-8]$/, '') === stage)
  return said ? `“${said.text}”: ` : ''
}
const clauses = computed(() => [
  ...props.forecast.sentence.map((clause) => ({
    ...clause,
    key: clause.stage || 'food',
    lead: '',
    wrong: wrong.value.includes(clause.stage.replace(/\.[1-8]$/, '')),
    end: ', ',
  })),
  {
    stage: '',
    key: SERVE,
    lead: 'on the table ',
    text: serveText(draft.chain?.serve_at, props.now),
    wrong: wrong.value.includes(SERVE),
    end: '.',
  },
])
const serveAt = (moment: string | null) => draft.edit((next) => (next.serve_at = moment))
const opened = computed(() => clauses.value.find((clause) => clause.key === open.value))

function toggle(key: string) {
  open.value = open.value === key ? undefined : key
}

/** The focus goes into the editor, and back to where it came from. */
function enter() {
  document.querySelector<HTMLElement>('.part-chooser .inside :is(input, button)')?.focus()
}

function shut(key: string) {
  open.value = undefined
  document.querySelector<HTMLElement>(`[data-test="clause-${key}"]`)?.focus()
}

/** Keys move and take out what has the focus. */
function key(event: KeyboardEvent, stage: string) {
  if (!stage) return
  if (event.key === 'Delete') draft.takeOut(stage)
  else if (event.altKey && event.key === 'ArrowLeft') draft.move(stage, -1)
  else if (event.altKey && event.key === 'ArrowRight') draft.move(stage, 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <div>
    <p class="sentence" data-test="chain-sentence">
      <template v-for="clause in clauses" :key="clause.key">
        <span>{{ clause.lead }}</span>
        <el-popover
          :visible="!phone && open === clause.key"
          :width="380"
          placement="bottom-start"
          :show-arrow="false"
          :persistent="false"
          popper-class="part-chooser"
          @after-enter="enter"
        >
          <template #reference>
            <!-- A long clause runs on over the line as words do, which no button element can. -->
            <span
              role="button"
              tabindex="0"
              class="clause"
              :class="{ wrong: clause.wrong }"
              :aria-expanded="open === clause.key"
              aria-haspopup="dialog"
              :data-test="`clause-${clause.key}`"
              @click="toggle(clause.key)"
              @keydown.enter="toggle(clause.key)"
              @keydown.space.prevent="toggle(clause.key)"
              @keydown="key($event, clause.stage)"
              @keydown.esc="open = undefined"
              >{{ clause.text }}</span
            >
          </template>
          <div class="inside" @keydown.esc.capture.stop="shut(clause.key)">
            <FoodEditor v-if="clause.key === 'food'" :choices="choices" />
            <ServeField
              v-else-if="clause.key === SERVE"
              :serve-at="draft.chain?.serve_at ?? null"
              @change="serveAt"
            />
            <StageEditor
              v-else
              :id="clause.stage"
              :heats="choices.heats"
              @done="shut(clause.key)"
            />
          </div>
          <el-button class="plain-button close" data-test="done" @click="shut(clause.key)">
            Done
          </el-button>
        </el-popover>
        <span>{{ clause.end }}</span>
      </template>
    </p>
    <el-drawer
      v-if="phone"
      :model-value="Boolean(opened)"
      direction="btt"
      size="auto"
      :title="opened?.text"
      class="part-sheet"
      append-to-body
      destroy-on-close
      @update:model-value="open = undefined"
    >
      <FoodEditor v-if="open === 'food'" :choices="choices" />
      <ServeField
        v-else-if="open === SERVE"
        :serve-at="draft.chain?.serve_at ?? null"
        @change="serveAt"
      />
      <StageEditor
        v-else-if="opened"
        :id="opened.stage"
        :heats="choices.heats"
        @done="open = undefined"
      />
    </el-drawer>
    <p v-for="fault in faults" :key="fault.field" class="fault" role="alert">
      {{ about(fault) }}<template v-if="fault.given">{{ fault.given }} will not do. </template>Use
      {{ fault.accepted }}.
    </p>
  </div>
</template>

<style scoped>
.sentence {
  font: 500 1.55rem/1.55 var(--kettle-display);
  margin: 0;
  text-wrap: pretty;
}
.clause {
  display: inline;
  padding: 0 2px;
  color: var(--kettle-enamel);
  cursor: pointer;
  box-decoration-break: clone;
  text-decoration: underline;
  text-decoration-color: var(--kettle-ember);
  text-decoration-thickness: 3px;
  text-underline-offset: 6px;
  border-radius: 6px;
}
:global(html.dark .clause) {
  color: var(--kettle-enamel-soft);
}
.clause:hover,
.clause[aria-expanded='true'] {
  background: var(--kettle-ember-soft);
}
.inside {
  margin: -5px;
  padding: 5px; /* room for the ring of what has the focus */
  max-height: 52vh;
  overflow: auto;
}
.clause.wrong {
  text-decoration-style: wavy;
  text-decoration-color: var(--kettle-stop);
  color: var(--kettle-stop);
}
.close {
  margin-top: 14px;
}
.fault {
  font: 700 1rem var(--kettle-text);
  color: var(--kettle-stop);
  background: var(--kettle-stop-soft);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 10px 0 0;
}
@media (max-width: 640px) {
  .sentence {
    font-size: 1.25rem;
    line-height: 44px;
  }
}
</style>
