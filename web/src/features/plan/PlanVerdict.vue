<script setup lang="ts">
import { computed } from 'vue'
import type { ChainForecast } from '@/api/client'
import { clock, day, duration, secondsUntil } from '@/shared/format/time'

const props = defineProps<{ forecast: ChainForecast; now: Date; blocked?: boolean }>()
defineEmits<{ start: []; rehearse: [] }>()

const early = computed(() => secondsUntil(props.forecast.start_at, props.now) / 60)
const startWords = computed(() =>
  early.value > 2 ? `Start at ${clock(props.forecast.start_at)}` : 'Start now',
)
const on = computed(() => day(props.forecast.serve_at, props.now))
</script>

<template>
  <section class="verdict" aria-label="When to start and when to eat">
    <div class="eat">
      <p class="lead">{{ startWords }}, eat about</p>
      <p class="time figure" data-test="serve-time">{{ clock(forecast.serve_at) }}</p>
      <p class="range figure">
        {{ clock(forecast.serve_low_at) }} to {{ clock(forecast.serve_high_at) }}, 8 evenings in
        10<template v-if="on !== 'today'">, {{ on }}</template>
      </p>
    </div>
    <dl class="sums figure">
      <div>
        <dt>Honest time</dt>
        <dd data-test="honest">{{ duration(forecast.total.likely_s) }}</dd>
      </div>
      <div>
        <dt>Your timers alone</dt>
        <dd data-test="headline">{{ duration(forecast.headline_s) }}</dd>
      </div>
      <div>
        <dt>Hands busy</dt>
        <dd>{{ duration(forecast.hands_s) }}</dd>
      </div>
      <div class="least">
        <dt>Least sure</dt>
        <dd>{{ forecast.least_sure_says }}</dd>
      </div>
    </dl>
    <div class="go no-print">
      <el-button
        class="ember-button start"
        :disabled="blocked"
        data-test="start"
        @click="$emit('start')"
      >
        Start cooking
      </el-button>
      <el-button
        class="plain-button"
        :disabled="blocked"
        data-test="rehearse"
        @click="$emit('rehearse')"
      >
        Rehearse it, 20 times as fast
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.verdict {
  display: flex;
  align-items: center;
  gap: 36px;
  margin: 6px 0 26px;
}
.eat p {
  margin: 0;
}
.lead {
  font-size: 1.05rem;
}
.time {
  font: 700 4.4rem/1 var(--kettle-display);
  letter-spacing: -0.02em;
  color: var(--kettle-ember);
}
.range {
  color: var(--kettle-ink-soft);
  font-size: 1.05rem;
}
.sums {
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 10px 34px;
  margin: 0;
  flex: 1;
  justify-content: start;
}
dt {
  color: var(--kettle-ink-soft);
  font-size: 0.95rem;
}
dd {
  margin: 0;
  font: 700 1.45rem var(--kettle-display);
}
.least {
  grid-column: 1 / -1;
}
.least dd {
  font: 400 1.05rem var(--kettle-text);
}
.go {
  display: grid;
  gap: 10px;
}
.go .el-button {
  margin: 0;
}
.start {
  min-height: 84px;
  font-size: 1.5rem;
  padding: 10px 36px;
}
@media (max-width: 860px) {
  .verdict {
    flex-direction: column;
    align-items: stretch;
    gap: 16px;
  }
  .sums {
    gap: 10px 22px;
  }
  dd {
    font-size: 1.2rem;
  }
}
</style>
