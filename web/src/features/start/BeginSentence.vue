<script setup lang="ts">
/** The plan as it comes to be: what was answered stands in ink, what is taken as usual is pale. */
import { computed } from 'vue'
import type { ChainForecast } from '@/api/client'
import { clock, day, duration } from '@/shared/format/time'
import { tapOfClause, type Told } from './taps'

const props = defineProps<{
  begun: boolean
  forecast?: ChainForecast
  told: Told
  thinking: boolean
  now: Date
}>()
const clauses = computed(() =>
  (props.forecast?.sentence ?? []).map((one) => {
    const tap = tapOfClause(one.stage)
    return { ...one, known: tap !== undefined && props.told[tap] !== undefined }
  }),
)
const on = computed(() => {
  if (!props.forecast) return ''
  const told = day(props.forecast.serve_at, props.now)
  return told === 'today' ? '' : `${told}, `
})
</script>

<template>
  <div class="begun" role="region" aria-label="The plan so far" tabindex="0" :aria-busy="thinking">
    <div v-if="!begun" class="before">
      <slot />
      <p class="sentence pale">The next plan writes itself here, with the hour that you eat.</p>
    </div>
    <p v-else-if="!forecast" class="sentence pale">Writing your plan…</p>
    <p v-else class="sentence" data-test="begun">
      <template v-for="(one, i) in clauses" :key="one.stage"
        ><span :class="{ pale: !one.known }">{{ one.text }}</span
        >{{ i + 1 < clauses.length ? ', ' : '.' }}</template
      >
    </p>
    <div v-if="begun && forecast" class="when" :class="{ thinking }" data-test="begun-at">
      <span>Begin now, eat about</span>
      <b class="figure">{{ clock(forecast.serve_at) }}</b>
      <span class="figure">
        {{ on }}{{ clock(forecast.serve_low_at) }} to {{ clock(forecast.serve_high_at) }},
        {{ duration(forecast.total.likely_s) }} in all
      </span>
    </div>
  </div>
</template>

<style scoped>
.begun {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px 32px;
  align-items: start;
  height: 138px;
  padding-bottom: 14px;
  margin-bottom: 18px;
  border-bottom: 2px solid var(--kettle-line);
  overflow: hidden auto;
}
.sentence {
  margin: 0;
  font: 500 1.28rem/1.45 var(--kettle-display);
  text-wrap: pretty;
}
.pale {
  color: var(--kettle-ink-soft);
}
.sentence span:not(.pale) {
  text-decoration: underline;
  text-decoration-color: var(--kettle-ember);
  text-decoration-thickness: 2px;
  text-underline-offset: 5px;
}
.before {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
}
.before p {
  margin: 0;
}
.before .sentence {
  flex-basis: 100%;
}
.before a {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}
.when {
  display: grid;
  justify-items: end;
  text-align: right;
  transition: opacity 0.2s;
}
.when b {
  font: 700 2.5rem/1.15 var(--kettle-display);
}
.when span {
  color: var(--kettle-ink-soft);
}
.thinking {
  opacity: 0.45;
}
@media (max-width: 640px) {
  .begun {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
    height: 196px;
  }
  .when {
    order: -1;
    justify-items: start;
    text-align: left;
    grid-template-columns: auto 1fr;
    align-items: baseline;
    column-gap: 10px;
  }
  .when b {
    font-size: 1.6rem;
  }
  .when span:last-child {
    grid-column: 1 / -1;
  }
  .sentence {
    font-size: 1.08rem;
  }
}
</style>
