<script setup lang="ts">
/** A supper as a whole: when it is there, what moved and why, and guests who come later. */
import { computed, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import { api, ask, type Problem, type Supper } from '@/api/client'
import { useLive } from '@/features/live'
import { clock, secondsUntil } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { small } from '@/shared/format/words'
import LateGuests from './LateGuests.vue'

const props = defineProps<{ supper: Supper }>()
const live = useLive()
const LATE_S = 150
const refused = ref<Problem>()
/** What was wanted before the last change, so that it can be taken back. */
const before = ref<string>()
const late = computed(
  () => secondsUntil(props.supper.serve_at, new Date(props.supper.wanted_at)) > LATE_S,
)

/** On a phone what is to be done comes first. */
const roomy = useMediaQuery('(min-width: 861px)')
/** A side's acts name it themselves. */
const whatMoved = (one: Supper['moved'][number]) =>
  one.label.toLowerCase().includes(one.name.toLowerCase())
    ? one.label
    : `${one.name}: ${small(one.label)}`

/** One change at a time: one that overtakes another would be lost. */
const sending = ref(false)
async function change(body: { wanted_at?: string; seen?: boolean }) {
  if (sending.value) return false
  sending.value = true
  const path = { id: props.supper.id }
  refused.value = await live.takenSupper(
    ask(() =>
      api.PUT('/api/v1/suppers/{id}', { params: { path }, body: { seen: false, ...body } }),
    ),
  )
  sending.value = false
  return !refused.value
}
async function moveSide(line: string, body: string) {
  if (sending.value) return
  sending.value = true
  refused.value = await live.moveSide({ supper: props.supper.id, line }, body)
  sending.value = false
}
async function later(minutes: number) {
  const wanted = props.supper.wanted_at
  const moment = new Date(wanted).getTime() + 60_000 * minutes
  if (await change({ wanted_at: new Date(moment).toISOString() })) before.value = wanted
}
async function back() {
  if (before.value && (await change({ wanted_at: before.value }))) before.value = undefined
}
</script>

<template>
  <section class="supper" :aria-label="supper.title" :data-test="`supper-${supper.id}`">
    <p class="when">
      <span>{{ supper.title }}, on the table about</span>
      <b class="figure">{{ clock(supper.serve_at) }}</b>
      <span v-if="late" class="late">wanted {{ clock(supper.wanted_at) }}</span>
    </p>
    <ProblemNote v-if="refused" :problem="refused" />
    <div v-if="supper.moved.length" class="moved" role="status" data-test="supper-moved">
      <details :open="roomy">
        <summary>{{ supper.why }}</summary>
        <ul>
          <li v-for="one in supper.moved" :key="one.line">
            {{ whatMoved(one) }} <b class="figure">{{ clock(one.is_at) }}</b>, was
            {{ clock(one.was_at) }}
          </li>
        </ul>
      </details>
      <el-button
        class="plain-button"
        :disabled="sending"
        data-test="supper-seen"
        @click="change({ seen: true })"
      >
        I have seen it
      </el-button>
    </div>
    <ul v-if="supper.still_in.length" class="still" role="status" data-test="still-in">
      <li v-for="one in supper.still_in" :key="one.line">
        {{ one.says }}
        <el-button
          v-for="way in one.ways"
          :key="way.body"
          class="plain-button"
          :disabled="sending"
          :data-test="`side-into-${way.body}`"
          @click="moveSide(one.line, way.body)"
        >
          Into the {{ way.name }}
        </el-button>
        <RouterLink v-if="one.cook" class="plain-button" :to="`/stove/${one.cook}?broke`">
          See where it can go
        </RouterLink>
      </li>
    </ul>
    <div class="acts">
      <LateGuests name="supper-later" :sending="sending" @later="later" />
      <el-button
        v-if="before"
        class="plain-button"
        :disabled="sending"
        data-test="supper-back"
        @click="back"
      >
        Undo: wanted {{ clock(before) }}
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.supper {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 10px 28px;
  margin-top: 14px;
  padding-bottom: 14px;
  border-bottom: 3px solid var(--kettle-ink);
}
.when {
  margin: 0;
  display: grid;
}
.when b {
  font: 700 2.6rem/1.05 var(--kettle-display);
}
.late {
  color: var(--kettle-ink-soft);
}
.moved {
  flex: 1 1 320px;
  padding-left: 14px;
  border-left: 4px solid var(--kettle-ember);
}
.still {
  display: grid;
  gap: 8px;
  flex: 1 1 100%;
  margin: 0;
  padding: 0;
  list-style: none;
}
.still li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  font-weight: 700;
}
.moved summary {
  font-weight: 700;
  cursor: pointer;
}
.moved ul {
  margin: 6px 0;
  padding-left: 18px;
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
