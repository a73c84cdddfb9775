<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { EventBody, Live } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { meantFahrenheit, oddInside } from '@/shared/format/inside'
import { clock } from '@/shared/format/time'
import { temperature, typed } from '@/shared/format/units'

/** A check: the reading, the feel, and the way round it that wants a reason. What a probe reads is
 * filled in until something else is typed; a person tells it. */
const props = defineProps<{ gate: NonNullable<Live['gate']>; feels?: string }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const { degrees } = useUnits()
const reading = ref('')
const leaving = ref(false)
const reason = ref('')

const filled = ref('')
watch(
  () => props.gate.reads_c,
  (reads) => {
    if (reading.value !== filled.value) return
    if (reads == null) {
      reading.value = filled.value = '' // what it read a while ago is not told
      return
    }
    const shown = degrees.value === 'C' ? reads : reads * 1.8 + 32
    reading.value = filled.value = String(Math.round(shown * 10) / 10)
  },
  { immediate: true },
)
const celsius = computed(() => {
  const value = typed(reading.value, 1)
  if (typeof value !== 'number') return null
  return degrees.value === 'C' ? value : (value - 32) / 1.8
})
const asks = computed(() => props.gate.wants_c !== null && props.gate.wants_c !== undefined)
/** What is wrong with a reading that food cannot have; where it would be one in °F, that is asked. */
const odd = computed(() => oddInside(celsius.value))
const inFahrenheit = computed(() => degrees.value === 'C' && meantFahrenheit(celsius.value!))
const blocked = computed(() => (asks.value && celsius.value === null) || odd.value !== '')
const yes = computed(() => {
  if (!props.gate.tender) return 'Checked'
  return asks.value ? 'It is tender and hot' : 'It is tender'
})

function tell(tender: boolean | null) {
  emit('told', { kind: 'done', step: props.gate.step, tender, temp_c: celsius.value })
}
function fromFahrenheit() {
  const value = typed(reading.value, 1)
  if (typeof value === 'number') reading.value = String(Math.round(((value - 32) / 1.8) * 10) / 10)
}
function leave() {
  emit('told', { kind: 'skip', step: props.gate.step, reason: reason.value.trim() })
}
</script>

<template>
  <div class="gate">
    <div v-if="asks" class="reading">
      <label for="gate-temp">Thermometer, thickest place, not touching bone</label>
      <el-input
        id="gate-temp"
        v-model="reading"
        class="figure"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="`°${degrees}`"
        data-test="gate-temp"
      />
      <span class="quiet">at least {{ temperature(gate.wants_c!, degrees) }}</span>
    </div>
    <p v-if="gate.read_by && reading === filled" class="rests" data-test="read-by">
      {{ gate.read_by }}, {{ clock(gate.read_at!) }}: filled in, you tell it.
    </p>
    <p v-if="feels" class="feels" data-test="feels">{{ feels }}</p>
    <p v-if="odd" class="odd" role="alert">
      {{ odd }}
      <template v-if="inFahrenheit">
        Did you mean °F?
        <el-button class="plain-button" data-test="meant-f" @click="fromFahrenheit">
          Yes, {{ reading }} °F
        </el-button>
      </template>
    </p>
    <p v-if="gate.rests_on" class="rests" data-test="rests-on">{{ gate.rests_on }}</p>
    <el-button
      class="wide-button"
      :disabled="blocked"
      data-test="gate-yes"
      @click="tell(gate.tender ? true : null)"
    >
      {{ yes }}
    </el-button>
    <el-button
      v-if="gate.tender"
      class="plain-button tough"
      :disabled="odd !== ''"
      data-test="gate-no"
      @click="tell(false)"
    >
      Not tender yet
    </el-button>
    <p v-if="asks && celsius === null" class="quiet">Enter the temperature to go on.</p>
    <el-button v-if="!leaving" class="leave" text data-test="leave-out" @click="leaving = true">
      Leave this check out…
    </el-button>
    <form v-else class="why" @submit.prevent="leave">
      <label for="gate-why">Why is it left out? It stands in the log.</label>
      <el-input id="gate-why" v-model="reason" maxlength="300" data-test="leave-why" />
      <el-button
        native-type="submit"
        class="plain-button"
        :disabled="reason.trim().length < 3"
        data-test="leave-go"
      >
        Go on without it
      </el-button>
    </form>
  </div>
</template>

<style scoped>
.gate {
  display: grid;
  gap: 12px;
}
.reading {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  font-size: 1.15rem;
}
label {
  font-weight: 700;
}
.reading .el-input {
  width: 150px;
  --el-input-height: 64px;
  font-size: 1.8rem;
}
.reading .el-input :deep(input) {
  text-align: center;
}
.rests {
  font-size: 1.1rem;
}
.feels {
  font: 700 1.25rem var(--kettle-display);
}
.tough {
  min-height: 64px;
  font-size: 1.15rem;
}
.odd {
  color: var(--kettle-stop);
  font-weight: 700;
}
.leave {
  justify-self: start;
  min-height: 44px;
}
.why {
  display: grid;
  gap: 8px;
}
.why .el-input {
  --el-input-height: 52px;
}
p {
  margin: 0;
}
</style>
