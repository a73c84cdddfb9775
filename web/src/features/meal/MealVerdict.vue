<script setup lang="ts">
import { computed } from 'vue'
import type { MealRepair, Schedule } from '@/api/client'
import { clock, day, duration } from '@/shared/format/time'
import { lateness, told } from './words'

/** When to begin and when everything is there; what is in the way, and what mends it. */
const props = defineProps<{ plan: Schedule; now: Date; thinking: boolean }>()
defineEmits<{ mend: [repair: MealRepair] }>()
const begin = computed(() => {
  const on = day(props.plan.first_at, props.now)
  return `${clock(props.plan.first_at)}${on === 'today' ? '' : ` ${on}`}`
})
const trouble = computed(() => [...props.plan.past, ...props.plan.reasons])
</script>

<template>
  <section class="verdict" :aria-busy="thinking" aria-live="polite" data-test="meal-verdict">
    <p v-if="plan.feasible" class="says figure">
      Begin at <b>{{ begin }}</b>, everything on the table about <b>{{ clock(plan.ready_at) }}</b>
      <span class="quiet">
        ({{ clock(plan.ready_low_at) }} to {{ clock(plan.ready_high_at) }},
        {{ lateness(plan.late) }}). Hands busy {{ duration(plan.hands_s) }}.</span
      >
      <span v-if="plan.latest_first_at" class="quiet">
        The latest begin is {{ clock(plan.latest_first_at) }}.</span
      >
    </p>
    <p v-else class="says">It cannot be cooked like this.</p>
    <div v-if="trouble.length" class="trouble" data-test="meal-trouble">
      <ul>
        <li v-for="(one, n) in trouble" :key="n">{{ told(one.says) }}</li>
      </ul>
      <div class="mend">
        <el-button
          v-for="one in plan.repairs"
          :key="one.says"
          class="ember-button"
          data-test="mend"
          @click="$emit('mend', one)"
        >
          {{ told(one.says) }}
        </el-button>
      </div>
    </div>
    <p v-if="plan.assumed.length" class="quiet">Assumed: {{ plan.assumed.join(', ') }}.</p>
  </section>
</template>

<style scoped>
.verdict {
  margin: 10px 0 14px;
}
.says {
  font-size: 1.2rem;
  margin: 0 0 8px;
}
.trouble {
  border-left: 6px solid var(--kettle-careful);
  background: var(--kettle-careful-soft);
  border-radius: 0 12px 12px 0;
  padding: 12px 18px;
}
.trouble ul {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 6px;
}
.mend {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.mend:not(:empty) {
  margin-top: 12px;
}
</style>
