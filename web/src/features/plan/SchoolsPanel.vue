<script setup lang="ts">
/** Where cooks disagree: what this plan has chosen, and what each other school would change of it. */
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useElementVisibility } from '@vueuse/core'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Chain, type Problem } from '@/api/client'
import type { components } from '@/api/schema'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'
import { useDraft } from './draft'
import { schoolWords } from './schools'

type School = components['schemas']['SchoolPublic']
const props = defineProps<{ chain: Chain; stale: boolean }>()
const draft = useDraft()
const { here } = useKitchenFigures()
const all = ref(false)
// It takes a dozen forecasts: asked once somebody comes to it.
const place = ref<HTMLElement>()
const seen = useElementVisibility(place, { rootMargin: '200px' })
const wanted = ref(false)
watch(seen, (now) => now && (wanted.value = true))
const key = computed(() => JSON.stringify({ ...props.chain, serve_at: null, name: '' }))
const { data } = useQuery<School[], Problem>({
  queryKey: ['schools', here, key],
  queryFn: async ({ signal }) =>
    (await fetched(api.POST('/api/v1/schools', { body: JSON.parse(key.value) as Chain, signal })))
      .schools,
  enabled: computed(() => !props.stale && wanted.value),
  staleTime: Infinity,
  retry: false,
})
const schools = useLast(data)
const shown = computed(() => (schools.value ?? []).filter((one) => all.value || one.in_view))
const folded = computed(() => (schools.value?.length ?? 0) - shown.value.length)
// Each choice is a change of the plan that was asked about, and of no other.
const waits = computed(() => props.stale || data.value === undefined)
/** The choices are shut until the others are reckoned: keys go on from the heading. */
const head = useTemplateRef<HTMLElement>('head')
function choose(one: School['choices'][number]) {
  if (one.chosen) return
  draft.patch(one.patch)
  head.value?.focus({ preventScroll: true })
}
</script>

<template>
  <section ref="place" class="schools no-print" aria-labelledby="schools-title">
    <h2 id="schools-title" ref="head" tabindex="-1">Where cooks disagree</h2>
    <p v-if="!schools" class="quiet" role="status">Trying the other ways…</p>
    <p v-else-if="!schools.length" class="quiet">Not about anything in this plan.</p>
    <dl v-if="schools?.length" :class="{ waits }" :aria-busy="waits">
      <div v-for="school in shown" :key="school.key" :data-test="`school-${school.key}`">
        <dt>{{ school.question }}</dt>
        <dd>
          <el-button
            v-for="one in school.choices"
            :key="one.key"
            class="plain-button choice"
            :aria-pressed="one.chosen"
            :disabled="waits || (!one.chosen && one.later_s === null)"
            :title="one.why"
            :data-test="`school-${school.key}-${one.key}`"
            @click="choose(one)"
          >
            <span>
              <b>{{ one.text }}</b>
              <small>{{ schoolWords(one, school.choices) }}</small>
            </span>
          </el-button>
        </dd>
      </div>
    </dl>
    <el-button
      v-if="folded || all"
      class="plain-button"
      :aria-expanded="all"
      data-test="schools-more"
      @click="all = !all"
    >
      {{ all ? 'Fewer' : `${folded} more` }}
    </el-button>
  </section>
</template>

<style scoped>
.schools {
  margin-top: 30px;
}
dl {
  margin: 8px 0 12px;
  display: grid;
  gap: 14px;
}
.waits {
  opacity: 0.6;
}
dl > div {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 8px 20px;
  align-items: center;
}
dt {
  font: 700 1.05rem var(--kettle-display);
}
dd {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.choice {
  margin: 0;
  height: auto;
  min-height: 52px;
  padding: 6px 16px;
  justify-content: flex-start;
  white-space: normal;
  text-align: left;
}
.choice b,
.choice small {
  display: block;
}
.choice small {
  margin-top: 3px;
  font-weight: 400;
  font-size: 0.9rem;
  color: var(--kettle-ink-soft);
}
.choice[aria-pressed='true'] {
  border-color: var(--kettle-ember);
  background: var(--kettle-ember-soft);
}
@media (max-width: 640px) {
  dl > div {
    grid-template-columns: minmax(0, 1fr);
  }
  .choice {
    flex: 1 1 44%;
  }
}
</style>
