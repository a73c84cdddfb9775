<script setup lang="ts">
/** Food under a fire that does not look right: what can still be done, reckoned from what was seen. */
import { computed, shallowRef, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type EventBody, type Problem } from '@/api/client'
import { often } from '@/shared/format/share'
import { stopwatch } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const AGAIN_MS = 3_000
/** What leaves the food under its heat can be told; the strip is reckoned anew from then on. */
const TELLABLE = ['calmer', 'foil']
const props = defineProps<{ id: number; underS: number; seen: string }>()
/** How long it was under the heat when it was asked, and what was seen by then. */
const asked = shallowRef<{ nth: number; underS: number; seen: string }>()
const emit = defineEmits<{ told: [body: EventBody]; elsewhere: [] }>()
let nth = 0
const query = useQuery({
  queryKey: ['ways-out', computed(() => props.id), asked],
  queryFn: () =>
    fetched(api.GET('/api/v1/cooks/{id}/ways-out', { params: { path: { id: props.id } } })),
  enabled: computed(() => asked.value !== undefined),
  retry: false,
  staleTime: Infinity,
  // A server that was away is asked again.
  refetchInterval: ({ state }) =>
    (state.error as Problem | null)?.status === 0 ? AGAIN_MS : (false as const),
})
const ways = computed(() => query.data.value?.ways ?? [])
const problem = computed(() => query.error.value as Problem | null)
const open = computed(() => asked.value !== undefined)
function ask() {
  asked.value = { nth: nth++, underS: Math.round(props.underS), seen: props.seen }
}
function take(key: string) {
  asked.value = undefined
  emit('told', { kind: 'rescue', change: key as EventBody['change'] })
}
function leave() {
  asked.value = undefined
  emit('elsewhere')
}
// Another sign makes another question.
watch(
  () => props.seen,
  () => open.value && ask(),
)
function more(s: number | null): string {
  if (s === null) return 'the colour seldom comes'
  return s < 5 ? 'now' : `about ${stopwatch(s)} more`
}
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
          From {{ stopwatch(asked?.underS ?? 0) }} under the heat on. “Right” is by eye; “burnt” is
          who goes by these minutes alone.
        </p>
        <ol>
          <li v-for="(way, i) in ways" :key="way.do" :class="{ best: !i }" :data-test="`way-${i}`">
            <b>{{ way.do }}</b>
            <span class="figure">{{ more(way.more_s) }}</span>
            <span class="figure">right {{ often(way.chance) }}, burnt {{ often(way.risk) }}</span>
            <el-button
              v-if="TELLABLE.includes(way.key)"
              class="plain-button done"
              :data-test="`took-${way.key}`"
              @click="take(way.key)"
            >
              Done
            </el-button>
            <el-button
              v-else-if="way.key === 'elsewhere'"
              class="plain-button done"
              data-test="took-elsewhere"
              @click="leave"
            >
              See where
            </el-button>
          </li>
        </ol>
      </template>
    </section>
  </div>
</template>

<style scoped>
/* Its button stands beside others; what it opens, under all of them. */
.ways {
  display: contents;
}
.plain-button {
  min-height: 56px;
  font-size: 1.12rem;
}
section {
  order: 1;
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
