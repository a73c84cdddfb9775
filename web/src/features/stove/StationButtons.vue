<script setup lang="ts">
/** Coats, turns and looks on the live strip. The next one is a button: that of an act does what the
 * wide button does, that of a look asks what is seen. */
import { computed, ref } from 'vue'
import type { EventBody, Glaze, Live } from '@/api/client'
import { SeenButtons } from '@/features/live'
import { stopwatch } from '@/shared/format/time'
import { acts, look, type Station } from './stations'

const props = defineProps<{
  cook: Live
  glaze: Glaze
  bare: boolean
  underS: number
  /** Where the strip begins and how wide it is [px], and the seconds that it shows. */
  left: number
  width: number
  until: number
}>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const BUTTON_PX = 104
const ROOM_PX = BUTTON_PX + 6
const DUE_S = 10
const asking = ref(false)

const all = computed(() => acts(props.cook, props.glaze).filter((one) => one.at_s <= props.until))
const next = computed(() => all.value.find((one) => one.state === 'next'))
const marks = computed(() => all.value.filter((one) => one.state !== 'next'))
const glance = computed(() => {
  const found = look(props.cook, props.glaze, props.underS)
  return found && found.at_s <= props.until ? found : undefined
})
const x = (one: Station) => props.left + (one.at_s / props.until) * props.width
const end = computed(() => props.left + props.width)
const inside = (at: number) => Math.max(0, Math.min(end.value - BUTTON_PX, at - BUTTON_PX / 2))
/** Both in the order of their moments; where they want one place the later one makes room. */
const lefts = computed(() => {
  const [act, seen] = [next.value, glance.value]
  const own = { act: act ? inside(x(act)) : 0, look: seen ? inside(x(seen)) : 0 }
  if (!act || !seen || Math.abs(own.act - own.look) >= ROOM_PX) return own
  const first = Math.min(own.act, own.look, end.value - ROOM_PX - BUTTON_PX)
  return seen.at_s <= act.at_s
    ? { look: first, act: first + ROOM_PX }
    : { act: first, look: first + ROOM_PX }
})
const hidden = (one: Station) => {
  const at = x(one)
  const under = (from: number) => at > from - 6 && at < from + BUTTON_PX + 6
  return (next.value && under(lefts.value.act)) || (glance.value && under(lefts.value.look))
}
/** From a button down to its moment. */
const stems = computed(() => [next.value, glance.value].filter((one) => one !== undefined))
const due = (one: Station) => one.at_s - props.underS < DUE_S

function done() {
  if (props.cook.current) emit('told', { kind: 'done', step: props.cook.current })
}
function saw(sign: EventBody['sign']) {
  asking.value = false
  emit('told', { kind: 'saw', sign })
}
</script>

<template>
  <div class="stations" role="group" aria-label="On the strip" @keydown.esc="asking = false">
    <template v-for="one in marks" :key="`${one.says}${one.at_s}`">
      <span
        v-if="!hidden(one)"
        class="mark"
        :class="one.state"
        :style="{ left: `${x(one)}px` }"
        :title="`${one.says} at ${stopwatch(one.at_s)}`"
      >
        <svg viewBox="0 0 18 20" width="18" height="20" aria-hidden="true">
          <path v-if="one.kind === 'coat'" d="M9 1 c9 11 8 17 0 18 c-8 -1 -9 -7 0 -18z" />
          <path v-else class="arc" d="M2 10 a7 7 0 1 1 7 7 m0 0 l5 -4 m-5 4 l5 4" />
        </svg>
      </span>
    </template>
    <i v-for="one in stems" :key="one.says" class="stem" :style="{ left: `${x(one)}px` }" />
    <button
      v-if="next"
      type="button"
      class="station"
      :class="{ due: due(next) }"
      :style="{ left: `${lefts.act}px`, width: `${BUTTON_PX}px` }"
      :aria-label="`${next.says} ${stopwatch(next.at_s)}: ${cook.button}`"
      data-test="station-act"
      @click="done"
    >
      <b>{{ next.says }}</b> {{ stopwatch(next.at_s) }}
    </button>
    <button
      v-if="glance"
      type="button"
      class="station look"
      :class="{ due: due(glance) }"
      :style="{ left: `${lefts.look}px`, width: `${BUTTON_PX}px` }"
      :aria-label="`look ${stopwatch(glance.at_s)}: what do you see?`"
      :aria-expanded="asking"
      data-test="station-look"
      @click="asking = !asking"
    >
      <b>look</b> {{ stopwatch(glance.at_s) }}
    </button>
    <div v-if="asking && glance" class="signs" data-test="station-signs">
      <SeenButtons :cook="cook" :bare="bare" :glaze="glaze" @saw="saw" />
    </div>
  </div>
</template>

<style scoped>
.stations {
  position: absolute;
  inset: 0 0 auto;
  height: 0;
}
.mark {
  position: absolute;
  top: 22px;
  width: 18px;
  margin-left: -9px;
}
.mark path {
  fill: var(--kettle-enamel-soft);
  stroke: var(--kettle-ink);
}
.mark.later path,
.mark .arc {
  fill: none;
  stroke: var(--kettle-ink);
  stroke-width: 2;
}
.mark.later {
  opacity: 0.7;
}
.stem {
  position: absolute;
  top: 40px;
  width: 2px;
  height: 30px;
  margin-left: -1px;
  background: var(--kettle-ink);
}
.station {
  position: absolute;
  top: 0;
  height: 46px;
  padding: 0 4px;
  border: 2px solid var(--kettle-ink);
  border-radius: 14px;
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  font: 400 1rem/1.1 var(--kettle-text);
  font-variant-numeric: tabular-nums;
  cursor: pointer;
}
.station b {
  display: block;
}
.station.look {
  border-style: dashed;
}
/* Over the strip, and only while it is asked. */
.signs {
  position: absolute;
  inset: 54px 0 auto;
  padding: 10px;
  border: 2px solid var(--kettle-line);
  border-radius: 16px;
  background: var(--kettle-sheet);
}
.signs :deep(.seen > span) {
  display: none;
}
@media (min-width: 641px) {
  .signs :deep(.seen) {
    grid-template-columns: repeat(4, 1fr);
  }
}
.station.due {
  border-color: var(--kettle-ember);
  background: var(--kettle-ember-soft);
}
</style>
