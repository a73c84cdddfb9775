<script setup lang="ts">
/** A reading by hand while the food is in its heat: it narrows the forecast, and confirms nothing. */
import { computed, ref } from 'vue'
import { api, ask, type Live, type Problem } from '@/api/client'
import { useLive } from '@/features/live'
import { useUnits } from '@/shared/composables/useUnits'
import { oddInside } from '@/shared/format/inside'
import { typed } from '@/shared/format/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ cook: Live }>()
const emit = defineEmits<{ done: [] }>()
const live = useLive()
const { degrees } = useUnits()
const reading = ref('')
const problem = ref<Problem>()
const sending = ref(false)
const celsius = computed(() => {
  const value = typed(reading.value, 1)
  if (typeof value !== 'number') return null
  return degrees.value === 'C' ? value : (value - 32) / 1.8
})

const odd = computed(() => oddInside(celsius.value))

async function send() {
  if (celsius.value === null || odd.value || sending.value) return
  sending.value = true
  const before = live.cookOf(props.cook.id)
  const { problem: found } = await ask(() =>
    api.POST('/api/v1/cooks/{id}/readings', {
      params: { path: { id: props.cook.id } },
      body: {
        readings: [
          {
            quantity: 'core_c',
            value: celsius.value!,
            device: 'by hand',
            site: 'thickest place',
          },
        ],
      },
    }),
  )
  sending.value = false
  problem.value = found
  if (found) return
  live.sayMove(props.cook.id, 'measured', before)
  await live.refresh()
  emit('done')
}
</script>

<template>
  <form class="measure" @submit.prevent="send">
    <label for="measured">In the thickest place, not touching bone</label>
    <el-input
      id="measured"
      v-model="reading"
      class="figure"
      inputmode="decimal"
      autocomplete="off"
      :placeholder="`°${degrees}`"
      data-test="measured"
    />
    <el-button
      native-type="submit"
      class="plain-button"
      :disabled="celsius === null || Boolean(odd) || sending"
      data-test="measured-go"
    >
      Reckon with it
    </el-button>
    <span v-if="odd" class="odd" role="alert">{{ odd }}</span>
    <ProblemNote v-if="problem" :problem="problem" />
  </form>
</template>

<style scoped>
.measure {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
label {
  font-weight: 700;
}
.odd {
  color: var(--kettle-stop);
  font-weight: 700;
}
.el-input {
  width: 120px;
  --el-input-height: 56px;
  font-size: 1.4rem;
}
</style>
