<script setup lang="ts">
/** When nobody is at work: asleep, or out. */
import { computed, ref } from 'vue'
import dayjs from 'dayjs'
import { clock, day } from '@/shared/format/time'
import MomentPicker from '@/shared/ui/MomentPicker.vue'
import { awayFrom, nightOf, withAway, type Away } from './nights'

const props = defineProps<{ spans: readonly Away[]; supper: string; now: Date }>()
const emit = defineEmits<{ change: [spans: Away[]] }>()
const MOST = 8
const shown = computed(() => awayFrom(props.spans, props.now))
const text = (one: Away) => {
  const [from, to] = [day(one.start, props.now), day(one.end, props.now)]
  return `${from} ${clock(one.start)} to ${from === to ? '' : `${to} `}${clock(one.end)}`
}
const same = (one: Away, other: Away) =>
  new Date(one.start).getTime() === new Date(other.start).getTime() &&
  new Date(one.end).getTime() === new Date(other.end).getTime()
/** The night before supper, where it is still to come. */
const night = computed(() => {
  const last = nightOf(props.supper || props.now)
  const told = shown.value.some((one) => same(one, last))
  return told || new Date(last.start) <= props.now ? undefined : last
})
const some = computed(() => shown.value.length < MOST)
const add = (one: Away) => emit('change', withAway(props.spans, [one], props.now))
const drop = (gone: Away) =>
  emit(
    'change',
    shown.value.filter((one) => !same(one, gone)),
  )

const open = ref(false)
const from = ref<Date | null>(null)
const to = ref<Date | null>(null)
const wrong = computed(() => {
  if (!from.value || !to.value) return ''
  if (to.value <= from.value) return 'The second moment comes after the first.'
  return to.value <= props.now ? 'That is over already.' : ''
})
function begin() {
  open.value = !open.value
  from.value = dayjs(props.now).add(1, 'hour').startOf('hour').toDate()
  to.value = dayjs(from.value).add(2, 'hour').toDate()
}
function take() {
  if (!from.value || !to.value || wrong.value) return
  add({ start: from.value.toISOString(), end: to.value.toISOString() })
  open.value = false
}
</script>

<template>
  <div class="away" role="group" aria-labelledby="away-label">
    <span id="away-label">Asleep or out</span>
    <div class="row">
      <ul v-if="shown.length">
        <li v-for="one in shown" :key="`${one.start} ${one.end}`" class="figure">
          <span>{{ text(one) }}</span>
          <el-button text :aria-label="`Here after all: ${text(one)}`" @click="drop(one)"
            >×</el-button
          >
        </li>
      </ul>
      <el-button v-if="night && some" class="plain-button" data-test="night" @click="add(night)">
        {{ text(night) }}
      </el-button>
      <el-button
        v-if="some"
        class="plain-button"
        :aria-expanded="open"
        data-test="away"
        @click="begin"
      >
        another time…
      </el-button>
    </div>
    <div v-if="open" class="span">
      <label for="f-away-from">from</label>
      <MomentPicker id="f-away-from" v-model="from" :now="now" />
      <label for="f-away-to">to</label>
      <MomentPicker id="f-away-to" v-model="to" :now="now" />
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <el-button class="ember-button" :disabled="!!wrong" data-test="take-away" @click="take">
        Nobody is there then
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.away {
  display: grid;
  gap: 6px;
}
#away-label {
  font-weight: 700;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.row,
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
li {
  display: flex;
  align-items: center;
  padding-left: 14px;
  border: 2px solid var(--kettle-line);
  border-radius: 14px;
}
li .el-button {
  min-width: 44px;
  margin: 0;
  font-size: 1.3rem;
  color: var(--kettle-ink);
}
.row > .el-button {
  margin: 0;
}
.span {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin-top: 4px;
}
.span label {
  min-width: 2.6rem;
}
.span :deep(.el-date-editor) {
  width: min(300px, 100%);
}
.wrong {
  flex: 1 0 100%;
  order: 9;
  margin: 0;
  color: var(--kettle-stop);
}
</style>
