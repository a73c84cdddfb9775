<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useEventListener } from '@vueuse/core'
import type { EventBody } from '@/api/client'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { isTyping } from '@/shared/composables/keys'
import { clock } from '@/shared/format/time'
import { lastCall, nextCall, ringKey, takesScreen } from './calls'
import FireOverlay from './FireOverlay.vue'
import GateForm from './GateForm.vue'
import OutcomeForm from './OutcomeForm.vue'
import SeenButtons from './SeenButtons.vue'
import StepList from './StepList.vue'
import StoveClock from './StoveClock.vue'
import { useAlarm } from './useAlarm'
import { useStove } from './useStove'

const props = defineProps<{ id: number }>()
const { live, glaze, problem, refused, now, underS, tell, refresh } = useStove(() => props.id)
const { ready, arm, ring } = useAlarm()

const current = computed(() => live.value?.steps.find((s) => s.key === live.value?.current))
const side = computed(
  () => live.value?.steps.filter((s) => live.value?.side_due.includes(s.key)) ?? [],
)
const firing = computed(() => underS.value !== null && live.value !== undefined)
const call = computed(() => (firing.value ? lastCall(live.value!.calls, underS.value!) : undefined))
const upcoming = computed(() =>
  firing.value ? nextCall(live.value!.calls, underS.value!) : undefined,
)
const hushed = ref<string>()
const overlay = computed(
  () =>
    firing.value &&
    takesScreen(call.value) &&
    hushed.value !== `${call.value!.level}${call.value!.at_s}`,
)
const assumed = computed(() => live.value?.fire_assumed ?? false)
const next = computed(() => {
  const steps = live.value?.steps.filter((s) => !s.beside) ?? []
  const place = steps.findIndex((s) => s.key === live.value?.current)
  return steps.slice(place + 1, place + 4)
})

watch(
  () => ringKey(live.value?.calls ?? [], underS.value, assumed.value),
  (key, before) => {
    if (!key || key === before || live.value?.ended_at) return
    if (assumed.value && call.value?.level !== 'out') ring('ask', 'Is it under the heat?')
    else if (call.value) ring(call.value.level, call.value.says)
  },
)
// A machine that is done calls once, with the next thing to do.
watch(
  () => live.value?.current,
  (key, before) => {
    if (before && key && current.value && current.value.who !== 'machine')
      ring('look', live.value!.says)
  },
)

function told(body: EventBody) {
  arm()
  void tell(body)
}
function done(ago = 0) {
  if (current.value && current.value.who !== 'gate')
    told({ kind: 'done', step: current.value.key, ago_s: ago })
}
const more = () => current.value && told({ kind: 'extend', step: current.value.key, seconds: 60 })
const undo = () => told({ kind: 'undo' })
const saw = (sign: EventBody['sign']) => told({ kind: 'saw', sign })
const cameOut = () => told({ kind: 'done', step: 'finish' })

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const onButton = event.key === ' ' && (event.target as HTMLElement)?.tagName === 'BUTTON'
  if (
    isTyping(event) ||
    onButton ||
    event.ctrlKey ||
    event.metaKey ||
    !live.value ||
    live.value.ended_at
  )
    return
  const acts: Record<string, () => void> = {
    ' ': () => (firing.value && call.value?.level === 'out' ? cameOut() : done()),
    '2': () => done(120),
    '+': () => void more(),
    u: undo,
    n: () => saw('nothing yet'),
    b: () => saw('bubbling'),
    a: () => saw('amber at the edges'),
    d: () => saw('dark'),
  }
  const act = acts[event.key]
  if (!act || ('nbad'.includes(event.key) && !firing.value)) return
  event.preventDefault()
  act()
})
</script>

<template>
  <div class="page stove">
    <ProblemNote v-if="problem" :problem="problem" again @again="refresh" />
    <p v-else-if="!live" class="quiet" role="status">Looking at the stove…</p>
    <OutcomeForm v-if="live && (live.finished || live.ended_at)" :live="live" @undo="undo" />
    <div v-else-if="live" class="halves">
      <section class="card" aria-label="What to do now">
        <h1 class="says" data-test="says" aria-live="polite">{{ live.says }}</h1>
        <p class="detail">{{ live.detail }}</p>
        <StoveClock
          :live="live"
          :step="current"
          :now="now"
          :under-s="underS"
          :call="call"
          :next="upcoming"
        />
        <div v-if="assumed" class="ask" role="alert">
          <b>Is it under the heat?</b>
          <button
            type="button"
            class="wide-button"
            data-test="under-yes"
            @click="told({ kind: 'done', step: 'under' })"
          >
            Yes, just now
          </button>
          <button
            type="button"
            class="plain-button"
            @click="
              told({ kind: 'done', step: 'under', ago_s: Math.max(0, Math.round(underS ?? 0)) })
            "
          >
            Yes, since {{ clock(live.fire_since!) }}
          </button>
        </div>
        <GateForm
          v-if="current?.who === 'gate'"
          :wants-c="live.gate_wants_c ?? null"
          :failed="live.gate_failed"
          :rests-on="live.gate_rests_on"
          @told="told({ kind: 'done', step: current!.key, ...$event })"
        />
        <button
          v-else-if="current"
          type="button"
          class="wide-button"
          data-test="done"
          @click="done()"
        >
          {{ live.button }}
        </button>
        <SeenButtons v-if="firing" @saw="saw" />
        <div class="small">
          <button
            v-if="current && current.who !== 'gate'"
            type="button"
            class="plain-button"
            data-test="ago"
            @click="done(120)"
          >
            Two minutes ago
          </button>
          <button type="button" class="plain-button" data-test="more" @click="more">+1 min</button>
          <button
            type="button"
            class="plain-button"
            :disabled="!live.last_event"
            data-test="undo"
            @click="undo"
          >
            Undo
          </button>
          <button
            v-if="!ready"
            type="button"
            class="plain-button"
            @click="(arm(), ring('look', 'Sound is on'))"
          >
            Turn sound on
          </button>
        </div>
        <ProblemNote v-if="refused" :problem="refused" />
        <div v-for="s in side" :key="s.key" class="side" role="alert">
          <span>Switch it on now: {{ s.label.toLowerCase() }}.</span>
          <button
            type="button"
            class="plain-button"
            :data-test="`side-${s.key}`"
            @click="told({ kind: 'done', step: s.key })"
          >
            It is on
          </button>
        </div>
      </section>
      <aside>
        <p class="eat figure">
          On the table about <b>{{ clock(live.serve_at) }}</b><span
            >{{ clock(live.serve_low_at) }} to {{ clock(live.serve_high_at) }}</span
          >
        </p>
        <h2>Next</h2>
        <StepList :steps="next" :now="now" brief />
        <details>
          <summary>All steps</summary>
          <div class="all" tabindex="0" role="region" aria-label="All steps">
            <StepList
              :steps="live.steps.filter((s) => !s.beside)"
              :now="now"
              @jump="told({ kind: 'done', step: $event })"
            />
          </div>
        </details>
      </aside>
      <section v-if="firing && glaze" class="strip" aria-label="The glaze now">
        <GlazeStrip :glaze="glaze" :now-s="underS" />
      </section>
    </div>
    <FireOverlay
      v-if="overlay && live"
      :call="call!"
      :under-s="underS!"
      :appliance="glaze?.appliance_name ?? 'appliance'"
      @out="cameOut"
      @hush="hushed = `${call!.level}${call!.at_s}`"
    />
  </div>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 26px 48px;
}
.says {
  font-size: 2.2rem;
  text-wrap: balance;
}
.detail {
  margin: 8px 0 0;
  font-size: 1.12rem;
  color: var(--kettle-ink-soft);
  min-height: 1.6em;
}
.card {
  display: grid;
  gap: 14px;
  align-content: start;
}
.small {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
}
.small .plain-button {
  min-height: 60px;
}
.side {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  background: var(--kettle-ember-soft);
  border-radius: 14px;
  padding: 12px 18px;
  font-weight: 700;
}
.ask {
  display: grid;
  gap: 10px;
  background: var(--kettle-stop-soft);
  padding: 16px;
  border-radius: 18px;
  font-size: 1.3rem;
}
.strip {
  grid-column: 1 / -1;
}
.eat {
  font-size: 1.15rem;
  margin: 0 0 22px;
}
.eat b {
  font: 700 2.4rem var(--kettle-display);
  display: block;
  color: var(--kettle-ember);
}
summary + .all {
  max-height: 330px;
  overflow: auto;
}
summary {
  cursor: pointer;
  padding: 14px 0;
  font-weight: 700;
}
@media (max-width: 860px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .says {
    font-size: 1.7rem;
  }
}
</style>
