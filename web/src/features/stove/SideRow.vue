<script setup lang="ts">
/** A side of a supper: what it wants now, when, and its button. */
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Problem, Supper } from '@/api/client'
import { useLive } from '@/features/live'
import { clock } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TapNotes from './TapNotes.vue'

const props = defineProps<{ supper: Supper; side: Supper['sides'][number] }>()
const live = useLive()
const next = computed(() => props.supper.next.find((one) => one.line === props.side.line))
const wants = computed(() => props.side.who === 'hands')
const says = computed(() => {
  if (!props.side.step) return 'On the table.'
  if (wants.value) return `${props.side.label}.`
  return `${props.side.label}, until about ${clock(props.side.due_at!)}`
})
const refused = ref<Problem>()
/** Its button goes with what it did: keys go on from the name of the side. */
const title = useTemplateRef<HTMLElement>('title')
const go = async (body: string) => {
  const { line } = props.side
  refused.value = await live.moveSide({ supper: props.supper.id, line }, body)
  await nextTick()
  if (document.activeElement === document.body) title.value?.focus({ preventScroll: true })
}
/** Of what broke the note of the supper asks already. */
const ways = computed(() =>
  props.supper.still_in.some((one) => one.line === props.side.line) ? [] : props.side.ways,
)
const waits = computed(() => next.value?.waits_until)

const tell = (kind: 'done' | 'undo') =>
  void live.tellSide(
    { supper: props.supper.id, line: props.side.line },
    kind,
    props.side.step ?? '',
  )
</script>

<template>
  <li :class="{ wants }" :data-test="`side-${side.line}`">
    <div class="words">
      <p ref="title" class="title" tabindex="-1">{{ side.name }}</p>
      <p class="says">{{ says }}</p>
      <p v-if="side.place" class="quiet" :data-test="`side-place-${side.line}`">
        Cooks in the {{ side.place }}
      </p>
      <p v-if="waits && wants" class="quiet">It can wait until {{ clock(waits) }}</p>
      <p v-else-if="next && !wants" class="quiet">
        Next: {{ next.label }}, about {{ clock(next.at) }}
      </p>
      <TapNotes :line="side.line" quiet />
      <ProblemNote v-if="refused" :problem="refused" />
    </div>
    <div class="buttons">
      <el-button
        v-if="side.step"
        :class="wants ? 'wide-button' : 'plain-button'"
        :data-test="`side-done-${side.line}`"
        @click="tell('done')"
      >
        {{ wants ? 'Done' : 'Go on now' }}
      </el-button>
      <el-button
        v-for="way in ways"
        :key="way.body"
        class="plain-button"
        :data-test="`side-to-${side.line}-${way.body}`"
        @click="go(way.body)"
      >
        Into the {{ way.name }} instead
      </el-button>
      <el-button
        v-if="side.was"
        class="plain-button"
        :data-test="`side-back-${side.line}`"
        @click="go(side.was)"
      >
        Back to the {{ side.was_place }}
      </el-button>
      <el-button
        v-if="side.undoable"
        class="plain-button"
        :data-test="`side-undo-${side.line}`"
        @click="tell('undo')"
      >
        Undo
      </el-button>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 14px 24px;
  align-items: center;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--kettle-line);
}
.words p {
  margin: 0 0 4px;
}
.title {
  color: var(--kettle-ink-soft);
}
.says {
  font: 700 1.2rem/1.15 var(--kettle-display);
}
.wants .says {
  font-size: 1.6rem;
}
.buttons {
  display: grid;
  gap: 8px;
}
.buttons .el-button {
  margin: 0;
}
@media (max-width: 860px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
