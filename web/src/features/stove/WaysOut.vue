<script setup lang="ts">
/** Food under a fire that does not look right: what can still be done, reckoned from what was seen. */
import { computed, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Problem } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ id: number; underS: number; seen: string }>()
const asked = ref<number>()
const query = useQuery({
  queryKey: ['ways-out', computed(() => props.id), asked, computed(() => props.seen)],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}/ways-out', { params: { path: { id: props.id } } })),
  enabled: computed(() => asked.value !== undefined),
  retry: false,
  staleTime: Infinity,
})
/** Of ten; none and all only where it is nearly sure. */
const tenths = (share: number) =>
  share > 0.02 && share < 0.98
    ? Math.min(9, Math.max(1, Math.round(10 * share)))
    : share < 0.5
      ? 0
      : 10
const ways = computed(() => query.data.value?.ways ?? [])
const problem = computed(() => query.error.value as Problem | null)
const open = computed(() => asked.value !== undefined)
function ask() {
  asked.value = Math.round(props.underS)
}
// Another sign makes another question.
watch(
  () => props.seen,
  () => open.value && ask(),
)
</script>

<template>
  <div class="ways">
    <el-button
      class="plain-button"
      :aria-expanded="open"
      data-test="ways-out"
      @click="open ? (asked = undefined) : ask()"
    >
      {{ open ? 'It looks right again' : 'It looks wrong' }}
    </el-button>
    <section v-if="open" aria-live="polite" aria-label="What can still be done">
      <ProblemNote v-if="problem" :problem="problem" again @again="query.refetch()" />
      <p v-else-if="query.isPending.value" class="quiet" role="status">Looking for a way out…</p>
      <p v-else-if="!ways.length" class="quiet">Nothing is known of this heat: go by the look.</p>
      <template v-else>
        <p class="quiet">
          From {{ stopwatch(asked ?? 0) }} under the heat on. “Right” is by eye; “burnt” is who goes
          by these minutes alone.
        </p>
        <ol>
          <li v-for="(way, i) in ways" :key="way.do" :class="{ best: !i }" :data-test="`way-${i}`">
            <b>{{ way.do }}</b>
            <span class="figure">{{
              way.more_s === null
                ? 'the colour seldom comes'
                : way.more_s < 5
                  ? 'now'
                  : `about ${stopwatch(way.more_s)} more`
            }}</span>
            <span class="figure"
              >right {{ tenths(way.chance) }}, burnt {{ tenths(way.risk) }} times in 10</span
            >
          </li>
        </ol>
      </template>
    </section>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.plain-button {
  min-height: 56px;
  font-size: 1.12rem;
}
section {
  width: 100%;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 4px 18px;
  padding: 12px 0 12px 22px;
  border-top: 1px solid var(--kettle-line);
  font-size: 1.12rem;
}
.best {
  box-shadow: inset 8px 0 var(--kettle-ember);
}
@media (max-width: 640px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
