<script setup lang="ts">
/** The whole cook as one sentence. Every clause is a stage, and opens beside it or from below. */
import { computed, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { ChainForecast, Choices, Fault } from '@/api/client'
import ServeField from '@/shared/ui/ServeField.vue'
import { serveText } from './serve'
import FoodEditor from './FoodEditor.vue'
import JointMenu from './JointMenu.vue'
import StageEditor from './StageEditor.vue'
import { useDraft } from './draft'
import { stageAt } from './stages'

const props = defineProps<{
  forecast: ChainForecast
  choices: Choices
  faults: Fault[]
  now: Date
}>()
const SERVE = 'serve'
const JOINT = 'joint:'
const draft = useDraft()
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
    joint: clause.stage in props.forecast.joints ? JOINT + clause.stage : undefined,
    wrong: wrong.value.includes(clause.stage.replace(/\.[1-8]$/, '')),
    end: ', ',
  })),
  {
    stage: '',
    key: SERVE,
    joint: undefined,
    lead: 'on the table ',
    text: serveText(draft.chain?.serve_at, props.now),
    wrong: wrong.value.includes(SERVE),
    end: '.',
  },
])
const serveAt = (moment: string | null) => draft.edit((next) => (next.serve_at = moment))
const opened = computed(() => clauses.value.find((clause) => clause.key === open.value))
const joint = computed(() =>
  open.value?.startsWith(JOINT) ? open.value.slice(JOINT.length) : undefined,
)
const title = computed(() => (joint.value === undefined ? opened.value?.text : 'What comes next'))

/** Put a stage in, and open it: it comes with what is usual. */
function put(after: string, offer: ChainForecast['offers'][number]) {
  const { sauce } = props.forecast.joints[after]!
  open.value = draft.putAfter(after, offer.stage, sauce, props.choices.sauces[0]?.key)
}

const dragged = ref('')
const over = ref('')
function drop(stage: string) {
  if (dragged.value && dragged.value !== stage) draft.moveTo(dragged.value, stage)
  dragged.value = over.value = ''
}

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
              :class="{ wrong: clause.wrong, over: over === clause.stage && clause.stage }"
              :draggable="Boolean(clause.stage)"
              :aria-expanded="open === clause.key"
              aria-haspopup="dialog"
              :data-test="`clause-${clause.key}`"
              @click="toggle(clause.key)"
              @keydown.enter="toggle(clause.key)"
              @keydown.space.prevent="toggle(clause.key)"
              @keydown="key($event, clause.stage)"
              @dragstart="dragged = clause.stage"
              @dragover.prevent="over = clause.stage"
              @dragend="dragged = over = ''"
              @drop.prevent="drop(clause.stage)"
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
            <StageEditor v-else :id="clause.stage" :choices="choices" @done="shut(clause.key)" />
          </div>
          <el-button class="plain-button close" data-test="done" @click="shut(clause.key)">
            Done
          </el-button>
        </el-popover>
        <span>{{ clause.end }}</span>
        <el-popover
          v-if="clause.joint !== undefined"
          :visible="!phone && open === clause.joint"
          :width="280"
          placement="bottom-start"
          :show-arrow="false"
          :persistent="false"
          popper-class="part-chooser"
          @after-enter="enter"
        >
          <template #reference>
            <button
              type="button"
              class="joint no-print"
              :aria-label="`put something in after: ${clause.text}`"
              :aria-expanded="open === clause.joint"
              :data-test="`joint-${clause.key}`"
              @click="toggle(clause.joint)"
              @keydown.esc="open = undefined"
            >
              <span>+</span>
            </button>
          </template>
          <div class="inside" @keydown.esc.capture.stop="open = undefined">
            <JointMenu
              :after="clause.stage"
              :forecast="forecast"
              @put="put(clause.stage, $event)"
            />
          </div>
        </el-popover>
      </template>
    </p>
    <el-drawer
      v-if="phone"
      :model-value="Boolean(opened) || joint !== undefined"
      direction="btt"
      size="auto"
      :title="title"
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
      <JointMenu
        v-else-if="joint !== undefined"
        :after="joint"
        :forecast="forecast"
        @put="put(joint, $event)"
      />
      <StageEditor
        v-else-if="opened"
        :id="opened.stage"
        :choices="choices"
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
.clause.over {
  background: var(--kettle-ember-soft);
  outline: 2px dashed var(--kettle-ember);
}
/* A small ring to look at, and a place for a wet thumb around it. */
.joint {
  display: inline-grid;
  place-items: center;
  width: 44px;
  height: 44px;
  margin: -9px 0 -9px -9px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--kettle-ink-soft);
  font: 700 1rem/1 var(--kettle-text);
  vertical-align: middle;
  cursor: pointer;
}
.joint span {
  display: grid;
  place-items: center;
  width: 26px;
  height: 26px;
  border: 2px solid var(--kettle-line);
  border-radius: 50%;
  background: var(--kettle-sheet);
}
.joint:hover span,
.joint[aria-expanded='true'] span {
  border-color: var(--kettle-ember);
  background: var(--kettle-ember-soft);
  color: var(--kettle-ink);
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
