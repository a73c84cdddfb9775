<script setup lang="ts">
/** The coats of a fire on its strip: dragged to another moment, or opened by a tap. */
import { computed, ref } from 'vue'
import type { Chain, ChainFire } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import { addCoat, drops, moveCoat, takeCoat, thickCoats, type Drop } from './coats'
import { useDraft } from './draft'
import { sauceUsed } from './otherFire'
import { find } from './stages'

const props = defineProps<{
  fire: ChainFire
  /** Where the strip begins and how wide it is [px], and the seconds that it shows. */
  left: number
  width: number
  until: number
  held: boolean
}>()
const draft = useDraft()
const STEP_S = 15
const LATER_S = 60
const DRAG_PX = 5
const THICK = [
  { mm: 0.3, text: 'thin' },
  { mm: 0.5, text: 'usual' },
  { mm: 0.8, text: 'thick' },
]
const at = computed(() => (draft.chain ? find(draft.chain, props.fire.stage) : undefined))
const stage = computed(() => at.value?.list[at.value.place])
const all = computed(() => drops(stage.value, props.fire.glaze))
const sauce = computed(() => (at.value ? sauceUsed(at.value.list, at.value.place) : ''))
const mm = computed(() => (stage.value?.kind === 'heat' ? (stage.value.coat_mm ?? 0.5) : 0.5))
const open = ref<number>()
const drag = ref<{ number: number; from: number; at_s: number; moved: boolean }>()

const secondsOf = (drop: Drop) =>
  drag.value?.number === drop.number && drag.value.moved ? drag.value.at_s : drop.at_s
const place = (drop: Drop) =>
  props.left + (Math.min(secondsOf(drop), props.until) / props.until) * props.width
/** Only one coat can be on before the heat. */
const says = (drop: Drop) => {
  const held = drag.value?.number === drop.number && drag.value.moved
  const free = drop.before || !all.value.some((one) => one.before)
  const before = held ? free && secondsOf(drop) <= STEP_S : drop.before
  return before ? 'before the heat' : `at ${stopwatch(Math.max(STEP_S, secondsOf(drop)))}`
}
const clamped = (seconds: number) =>
  Math.min(props.until, Math.max(0, Math.round(seconds / STEP_S) * STEP_S))

function take(event: PointerEvent, drop: Drop) {
  if (props.held) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  drag.value = { number: drop.number, from: event.clientX, at_s: drop.at_s, moved: false }
}

function pull(event: PointerEvent, drop: Drop) {
  if (!drag.value) return
  const gone = event.clientX - drag.value.from
  if (Math.abs(gone) > DRAG_PX) drag.value.moved = true
  drag.value.at_s = clamped(drop.at_s + (gone / props.width) * props.until)
}

function drop(one: Drop) {
  const done = drag.value
  drag.value = undefined
  if (!done) return
  if (done.moved) put(one, done.at_s)
  else open.value = open.value === one.number ? undefined : one.number
}

/** The drops are those of the answer: while another is on its way they say nothing of the plan. */
function edit(change: (next: Chain, id: string, all: Drop[]) => void) {
  if (!props.held) draft.edit((next) => change(next, props.fire.stage, all.value))
}
const put = (one: Drop, seconds: number) =>
  edit((next, id, all) => moveCoat(next, id, all, one.number, clamped(seconds)))

function off(one: Drop) {
  open.value = undefined
  edit((next, id, all) => takeCoat(next, id, all, one.number))
}

function more() {
  const last = Math.max(0, ...all.value.map((one) => one.at_s))
  const seconds = clamped(last + LATER_S)
  edit((next, id, all) => addCoat(next, id, all, sauce.value, seconds))
}
const thick = (to: number) => edit((next, id) => thickCoats(next, id, to))

function key(event: KeyboardEvent, one: Drop) {
  if (event.key === 'ArrowLeft') put(one, one.at_s - STEP_S)
  else if (event.key === 'ArrowRight') put(one, one.at_s + STEP_S)
  else if (event.key === 'Delete') off(one)
  else if (event.key === 'Enter') open.value = one.number
  else if (event.key === 'Escape') open.value = undefined
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="drops no-print">
    <el-popover
      v-for="one in all"
      :key="one.number"
      :visible="open === one.number"
      :width="290"
      placement="top"
      :show-arrow="false"
      :persistent="false"
      popper-class="part-chooser"
    >
      <template #reference>
        <button
          type="button"
          role="slider"
          class="drop"
          :class="{ moving: drag?.number === one.number && drag.moved }"
          :style="{ left: `${place(one)}px` }"
          :aria-label="`coat ${one.number}, seconds under the heat`"
          aria-valuemin="0"
          :aria-valuemax="Math.round(until)"
          :aria-valuenow="Math.round(one.at_s)"
          :aria-valuetext="says(one)"
          :aria-disabled="held"
          :data-test="`coat-${one.number}`"
          @pointerdown="take($event, one)"
          @pointermove="pull($event, one)"
          @pointerup="drop(one)"
          @pointercancel="drag = undefined"
          @keydown="key($event, one)"
        >
          <svg viewBox="0 0 18 20" width="18" height="20" aria-hidden="true">
            <path d="M9 1 c9 11 8 17 0 18 c-8 -1 -9 -7 0 -18z" />
          </svg>
          <span>{{
            drag?.number === one.number && drag.moved ? says(one) : `coat ${one.number}`
          }}</span>
        </button>
      </template>
      <div class="card" @keydown.esc="open = undefined">
        <p>
          <b>Coat {{ one.number }}</b> {{ says(one) }}
        </p>
        <div class="row">
          <el-button
            class="plain-button"
            :data-test="`coat-${one.number}-sooner`"
            @click="put(one, one.at_s - STEP_S)"
            >15 s sooner</el-button
          >
          <el-button
            class="plain-button"
            :data-test="`coat-${one.number}-later`"
            @click="put(one, one.at_s + STEP_S)"
            >15 s later</el-button
          >
        </div>
        <p class="quiet">Every coat here:</p>
        <div class="row">
          <el-button
            v-for="t in THICK"
            :key="t.mm"
            class="plain-button"
            :aria-pressed="mm === t.mm"
            :data-test="`thick-${t.text}`"
            @click="thick(t.mm)"
            >{{ t.text }}</el-button
          >
        </div>
        <div class="row">
          <el-button class="plain-button" data-test="coat-off" @click="off(one)"
            >Take it off</el-button
          >
          <el-button class="plain-button" data-test="coat-more" @click="more"
            >One more coat</el-button
          >
        </div>
        <el-button class="plain-button" @click="open = undefined">Done</el-button>
      </div>
    </el-popover>
  </div>
</template>

<style scoped>
.drops {
  position: absolute;
  inset: 0 0 auto;
  height: 0;
}
.drop {
  position: absolute;
  top: 0;
  display: flex;
  align-items: flex-start;
  gap: 3px;
  height: 44px;
  min-width: 44px;
  padding: 1px 6px 0 13px;
  margin-left: -22px;
  border: 0;
  border-radius: 12px;
  background: none;
  color: var(--kettle-ink);
  font: 400 14px var(--kettle-text);
  white-space: nowrap;
  cursor: ew-resize;
  touch-action: none;
}
.drop path {
  fill: var(--kettle-enamel-soft, var(--kettle-enamel));
}
.drop:hover,
.drop.moving {
  background: var(--kettle-ember-soft);
}
.drop.moving {
  z-index: 2;
  font-weight: 700;
}
.card p {
  margin: 0 0 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 12px;
}
.row .el-button {
  margin: 0;
}
[aria-pressed='true'] {
  border-color: var(--kettle-ember);
  background: var(--kettle-ember-soft);
}
</style>
