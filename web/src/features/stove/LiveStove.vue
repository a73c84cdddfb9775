<script setup lang="ts">
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { useStorage } from '@vueuse/core'
import { api, fetched, type EventBody, type Live, type Problem } from '@/api/client'
import {
  fireSeconds,
  SeenButtons,
  SoundNote,
  useCookKeys,
  useLive,
  useLiveGlaze,
  useTrueStrip,
} from '@/features/live'
import { clock } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ActNow from './ActNow.vue'
import DialTold from './DialTold.vue'
import FeelTold from './FeelTold.vue'
import OutcomeForm from './OutcomeForm.vue'
import ProbeNote from './ProbeNote.vue'
import RehearsalBar from './RehearsalBar.vue'
import SideSteps from './SideSteps.vue'
import SmallActs from './SmallActs.vue'
import SomethingBroke from './SomethingBroke.vue'
import StillPossible from './StillPossible.vue'
import StationButtons from './StationButtons.vue'
import StepList from './StepList.vue'
import StoveClock from './StoveClock.vue'
import StoveFoot from './StoveFoot.vue'
import StovePicture from './StovePicture.vue'
import WaysOut from './WaysOut.vue'

/** One picture: the sentence over it, the clock in it, one wide button under it; the strip below is the timer. */
const props = defineProps<{ id: number }>()
const live = useLive()
const own = useQuery({
  queryKey: ['cook', props.id, 'live'],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}/live', { params: { path: { id: props.id } } })),
})
const cook = computed(() => (live.settled ? (live.cookOf(props.id) ?? own.data.value) : undefined))
const problem = computed(() => (own.error.value as Problem | null) ?? live.problem)
const glaze = useLiveGlaze(cook)
const truth = useTrueStrip(cook)
/** What is drawn: the simulated food where it is a rehearsal, else what the forecast makes of it. */
const drawn = computed(() => (cook.value?.rehearsal ? truth.value : glaze.value))
const under = computed(() => fireSeconds(cook.value, live.now))
const over = computed(() => cook.value && (cook.value.finished || cook.value.ended_at))
const line = computed(() => cook.value?.steps.filter((s) => !s.beside) ?? [])
const step = computed(() => cook.value?.steps.find((s) => s.key === cook.value?.current))
const next = computed(() => {
  const place = line.value.findIndex((s) => s.key === cook.value?.current)
  return line.value.slice(place + 1, place + 4)
})
/** Whether there is a clock in the picture; a hands step has none: nothing hurries it. */
const timed = computed(() => Boolean(cook.value?.fire) || step.value?.who === 'machine')
/** What is due beside it, a heat to be put on first: that is seen in the picture, where no button moves for it. */
const due = computed(() => {
  const steps = cook.value?.steps.filter((s) => cook.value?.side_due.includes(s.key)) ?? []
  const heats = steps.filter((s) => s.who === 'machine')
  return [...heats, ...steps.filter((s) => !heats.includes(s))]
})
const bare = computed(() => Boolean(glaze.value && !glaze.value.caramelises))
const moved = computed(() => live.movedOf(props.id))
/** One that was put away once the food is out of its heat is no news. */
const speaks = (probe: NonNullable<Live['probe']>) => probe.target_c !== null || !probe.silent
const told = (body: EventBody) => void live.tell(props.id, body)

onMounted(() => (live.watched = props.id))
onUnmounted(() => {
  if (live.watched === props.id) live.watched = undefined
})

/** A call makes this picture more urgent; it covers nothing. */
const call = computed(() => (live.call?.cook === props.id ? live.call.alarm : undefined))
const says = computed(() => call.value?.says ?? cook.value?.says ?? '')
const detail = computed(() =>
  call.value?.level === 'out' && !cook.value?.fire?.assumed
    ? `Is it out of the ${cook.value?.fire?.appliance ?? 'heat'}?`
    : (cook.value?.detail ?? ''),
)
const broke = ref<{ leaveFire: () => void }>()
const act = ref<{ focus: () => void }>()
watch(call, async (now, before) => {
  await nextTick()
  if (now && now.id !== before?.id) act.value?.focus()
})
useCookKeys(cook, told, () => !live.call || live.call.cook === props.id)

/** Under a fire the page is dark, unless this kitchen wants it light. */
const night = useStorage('kettle-night', true)
const dark = computed(() => Boolean(night.value && cook.value?.fire))
</script>

<template>
  <div
    class="stove-sheet"
    :class="{ 'dark-sheet': dark }"
    :data-call="call?.level ?? ''"
    data-test="stove"
  >
    <div class="page">
      <ProblemNote v-if="problem" :problem="problem" again @again="live.refresh" />
      <p v-else-if="!cook" class="quiet" role="status">Looking at the stove…</p>
      <RehearsalBar v-if="cook?.rehearsal" :cook="cook" :rehearsal="cook.rehearsal" />
      <OutcomeForm v-if="cook && over" :cook="cook" @undo="told({ kind: 'undo' })" />
      <div v-else-if="cook" class="stage" :class="{ fire: under !== null }">
        <header>
          <h1 class="says" data-test="says" aria-live="polite">{{ says }}</h1>
          <p class="detail" data-test="detail">{{ detail }}</p>
        </header>
        <div class="scene" :class="{ urgent: call, alone: !timed, low: cook.gate }">
          <div class="view">
            <StoveClock v-if="timed" :cook="cook" :step="step">
              <ProbeNote v-if="cook.probe && speaks(cook.probe)" :probe="cook.probe" />
            </StoveClock>
            <StovePicture :picture="cook.picture" :glaze="drawn" :under-s="under" />
            <p v-if="moved" class="moved" role="status" data-test="moved">{{ moved }}</p>
          </div>
          <div class="beside"><SideSteps :steps="due.slice(0, 1)" @told="told" /></div>
        </div>
        <section class="act" aria-label="What to do now">
          <ActNow ref="act" :cook="cook" :step="step" @told="told" />
        </section>
        <section class="see" aria-label="What you see">
          <SeenButtons
            v-if="cook.fire"
            :cook="cook"
            :bare="bare"
            :glaze="glaze"
            @saw="(sign) => told({ kind: 'saw', sign })"
          />
          <FeelTold
            v-if="cook.feel"
            :feel="cook.feel"
            :finds="cook.rehearsal?.feels"
            @told="told"
          />
          <SmallActs
            :cook="cook"
            :step="step"
            :call="call"
            @told="told"
            @hush="call && live.hush(id, call)"
          >
            <SomethingBroke ref="broke" :cook="cook" />
          </SmallActs>
          <SideSteps :steps="due.slice(1)" @told="told" />
        </section>
        <section v-if="under !== null && glaze" class="timer" aria-label="The glaze now">
          <GlazeStrip :glaze="glaze" :now-s="under" compact risk>
            <template #stations="strip">
              <StationButtons
                v-bind="strip"
                :cook="cook"
                :glaze="glaze"
                :bare="bare"
                :under-s="under"
                @told="told"
              />
            </template>
          </GlazeStrip>
          <WaysOut
            :id="id"
            :under-s="under"
            :seen="cook.glaze_key ?? ''"
            @told="told"
            @elsewhere="broke?.leaveFire()"
          />
          <DialTold
            v-if="cook.fire?.dial && !cook.fire.assumed"
            :fire="cook.fire"
            :dial="cook.fire.dial"
            @told="told"
          />
        </section>
        <p class="eat figure">
          On the table about <b>{{ clock(cook.serve_at) }}</b>
          <span>{{ clock(cook.serve_low_at) }} to {{ clock(cook.serve_high_at) }}</span>
        </p>
        <aside>
          <RouterLink v-if="cook.supper" to="/stove" class="plain-button" data-test="to-supper">
            The whole supper
          </RouterLink>
          <h2>Next</h2>
          <StepList :steps="next" brief />
          <StillPossible :cook="cook" />
          <details>
            <summary>All steps</summary>
            <div class="all" tabindex="0" role="region" aria-label="All steps">
              <StepList :steps="line" @told="told" />
            </div>
          </details>
          <el-checkbox v-if="cook.fire" v-model="night" data-test="night">
            Dark under the heat
          </el-checkbox>
          <StoveFoot :cook="cook" />
        </aside>
      </div>
      <SoundNote v-if="cook && !cook.ended_at" />
    </div>
  </div>
</template>

<style scoped lang="scss">
.stove-sheet {
  min-height: calc(100vh - 70px);
  background: var(--kettle-paper);
  color: var(--kettle-ink);
}
.page {
  padding-top: 14px;
}
.stage {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  grid-template-areas: 'say eat' 'scene aside' 'act aside' 'see aside' 'strip strip';
  grid-template-rows: repeat(3, auto) 1fr;
  gap: 12px 36px;
  align-items: start;
}
.stage.fire {
  grid-template-areas: 'say eat' 'scene see' 'act see' 'strip strip' 'aside aside';
  // What opens at the side takes its room under the button, which stays where it is.
  grid-template-rows: auto auto 1fr auto auto;
}
header {
  grid-area: say;
}
.scene {
  grid-area: scene;
  display: flex;
  flex-direction: column;
  height: clamp(220px, 37vh, 340px);
  border-radius: 22px;
  background: var(--kettle-night);
  color: var(--kettle-chalk);
  overflow: hidden;
}
.view {
  position: relative;
  flex: 1;
  min-height: 0;
}
.beside :deep(.side) {
  border-radius: 0;
  font-size: 1.15rem;
}
.fire .scene {
  height: clamp(200px, 31vh, 340px);
}
.scene.low {
  height: 200px;
}
.urgent {
  background: var(--kettle-alarm);
}
.act {
  grid-area: act;
}
.see {
  grid-area: see;
  display: grid;
  gap: 12px;
}
.timer {
  grid-area: strip;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
}
aside {
  grid-area: aside;
}
.says {
  font-size: 2.6rem;
  line-height: 1.1;
  text-wrap: balance;
}
[data-call='out'] .says,
[data-call='full'] .says {
  color: var(--kettle-ember);
  font-size: 3.4rem;
}
.detail {
  margin: 4px 0 0;
  font-size: 1.2rem;
  color: var(--kettle-ink-soft);
  min-height: 1.5em;
}
// In the picture, so that no button moves under the finger.
.moved {
  position: absolute;
  inset: 10px auto auto 16px;
  margin: 0;
  padding: 2px 10px;
  border-radius: 10px;
  background: var(--kettle-night);
  font-size: 1.1rem;
  font-weight: 700;
  color: var(--kettle-warming);
}
.eat {
  grid-area: eat;
  font-size: 1.1rem;
  line-height: 1.25;
  margin: 0;
}
.eat b {
  font: 700 2.4rem var(--kettle-display);
  display: block;
  color: var(--kettle-ember);
}
summary {
  cursor: pointer;
  padding: 14px 0;
  font-weight: 700;
}
summary + .all {
  max-height: 330px;
  overflow: auto;
}
@media (max-width: 860px) {
  .stage,
  .stage.fire {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'say' 'scene' 'act' 'strip' 'see' 'eat' 'aside';
    grid-template-rows: none;
    gap: 10px;
  }
  .scene {
    height: 26vh;
    min-height: 170px;
  }
  .fire .scene {
    height: 24vh;
  }
  .scene.low {
    height: 150px;
    min-height: 0;
  }
  .says {
    font-size: 1.6rem;
  }
  [data-call='out'] .says,
  [data-call='full'] .says {
    font-size: 2.2rem;
  }
  .detail {
    font-size: 1rem;
  }
  .moved {
    inset: 6px auto auto 8px;
    font-size: 0.95rem;
  }
}
</style>
