<script setup lang="ts">
/** An appliance that broke or was taken, foil that tore: where the food can go. */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useQuery } from '@tanstack/vue-query'
import { api, fetched, type Leaving, type Live, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import { often } from '@/shared/format/share'
import { clock, duration } from '@/shared/format/time'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

type Failing = Pick<Leaving, 'stage' | 'gone'>

const props = defineProps<{ cook: Live }>()
const live = useLive()
/** Asked for by the way that leads here, or by its button. */
const open = ref('broke' in useRoute().query)
const chosen = ref<Failing>()
const sending = ref(false)
const refused = ref<Problem>()
/** What is said of a heat that is given up by choice. */
const title = ref('')
const query = useQuery({
  queryKey: [
    'elsewhere',
    computed(() => props.cook.id),
    computed(() => [chosen.value?.stage, chosen.value?.gone, props.cook.last_event]),
  ],
  queryFn: () =>
    fetched(
      api.GET('/api/v1/cooks/{id}/elsewhere', {
        params: {
          path: { id: props.cook.id },
          query: { stage: chosen.value!.stage, gone: chosen.value!.gone },
        },
      }),
    ),
  enabled: computed(() => chosen.value !== undefined),
  retry: false,
  gcTime: 0,
})
const byChoice = computed(() => chosen.value?.gone === 'choice')
const closing = computed(() => (byChoice.value ? 'Leave it there' : 'Nothing is broken'))
const problem = computed(() => refused.value ?? (query.error.value as Problem | null))
const ways = computed(() => query.data.value?.ways ?? [])

function close() {
  open.value = false
  chosen.value = undefined
  refused.value = undefined
}
function choose(one: Failing, says: string) {
  refused.value = undefined
  title.value = says
  chosen.value = one
}
/** Leave the fire that the food is under by choice. */
function leaveFire() {
  if (!props.cook.fire) return
  open.value = true
  choose({ stage: props.cook.fire.name, gone: 'choice' }, 'Finish it elsewhere')
}
async function go(heat: string) {
  if (!chosen.value || sending.value) return
  sending.value = true
  refused.value = await live.leave(props.cook, { ...chosen.value, heat })
  sending.value = false
  if (!refused.value) close()
}
const shift = (later: number) =>
  Math.abs(later) < 30
    ? 'as now told'
    : `${duration(Math.abs(later))} ${later > 0 ? 'later' : 'sooner'}`
// What is over by now cannot be left any more.
watch(
  () => props.cook.leavable,
  (left) => {
    const still = left.some((one) => one.stage === chosen.value?.stage)
    if (chosen.value && !still) chosen.value = undefined
  },
)
defineExpose({ leaveFire })
</script>

<template>
  <div v-if="cook.leavable.length" class="broke">
    <el-button
      class="plain-button"
      :aria-expanded="open"
      data-test="broke"
      @click="open ? close() : (open = true)"
    >
      {{ open ? closing : 'Something broke' }}
    </el-button>
    <section v-if="open" aria-label="What broke" aria-live="polite">
      <p v-if="!chosen" class="what">
        <el-button
          v-for="one in cook.leavable"
          :key="one.stage + one.gone"
          class="plain-button"
          :data-test="`broke-${one.gone}-${one.stage}`"
          @click="choose(one, one.says)"
        >
          {{ one.says }}
        </el-button>
      </p>
      <template v-else>
        <h2>{{ title }}</h2>
        <ProblemNote v-if="problem" :problem="problem" again @again="query.refetch()" />
        <p v-else-if="query.isPending.value" class="quiet" role="status">
          Looking where it can go…
        </p>
        <p v-else-if="!ways.length" data-test="nowhere">
          I know of no other heat for this. Keep hot food hot, or chill it within two hours; “Stop
          this cook” is at the end of the page.
        </p>
        <ol v-else>
          <li v-for="way in ways" :key="way.heat">
            <el-button
              class="plain-button go"
              :loading="sending"
              :data-test="`go-${way.heat}`"
              @click="go(way.heat)"
            >
              {{ way.says }}
            </el-button>
            <span class="figure"
              >eat <b>{{ clock(way.eat_at) }}</b></span
            >
            <span class="quiet">{{ shift(way.later_s) }}</span>
            <span v-if="way.right !== null" class="quiet">right {{ often(way.right) }}</span>
          </li>
        </ol>
        <el-button
          v-if="!byChoice"
          text
          class="other"
          data-test="broke-other"
          @click="chosen = undefined"
        >
          It was something else
        </el-button>
      </template>
    </section>
  </div>
</template>

<style scoped>
/* Its button stands among the small acts, what it opens under all of them. */
.broke {
  display: contents;
}
.broke > .plain-button {
  margin: 0;
  min-height: 60px;
}
section {
  order: 1;
  grid-column: 1 / -1;
  display: grid;
  justify-items: start;
  gap: 10px;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 0;
}
.what .plain-button,
.go {
  margin: 0;
  min-height: 60px;
  white-space: normal;
}
ol {
  justify-self: stretch;
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
  padding: 10px 0;
  border-top: 1px solid var(--kettle-line);
  font-size: 1.12rem;
}
.go {
  flex: 1 1 14rem;
  justify-content: start;
}
.other {
  min-height: 44px;
  padding-left: 0;
}
h2 {
  margin: 4px 0 0;
}
</style>
