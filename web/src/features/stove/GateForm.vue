<script setup lang="ts">
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/composables/useUnits'
import { temperature, typed } from '@/shared/format/units'

const props = defineProps<{ wantsC: number | null; failed: string; restsOn?: string }>()
const emit = defineEmits<{ told: [gate: { tender: boolean; temp_c: number | null }] }>()
const { degrees } = useUnits()
const reading = ref('')

const celsius = computed(() => {
  const value = typed(reading.value, 1)
  if (typeof value !== 'number') return null
  return degrees.value === 'C' ? value : (value - 32) / 1.8
})
const blocked = computed(() => props.wantsC !== null && celsius.value === null)
const tell = (tender: boolean) => emit('told', { tender, temp_c: celsius.value })
</script>

<template>
  <div class="gate">
    <div v-if="wantsC !== null" class="reading">
      <label for="gate-temp">Thermometer, thickest place</label>
      <input
        id="gate-temp"
        v-model="reading"
        class="figure"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="`°${degrees}`"
        data-test="gate-temp"
      />
      <span class="quiet">at least {{ temperature(wantsC, degrees) }}</span>
    </div>
    <p v-if="restsOn" class="rests" data-test="rests-on">{{ restsOn }}</p>
    <button
      type="button"
      class="wide-button"
      :disabled="blocked"
      data-test="gate-yes"
      @click="tell(true)"
    >
      It is tender{{ wantsC !== null ? ' and hot' : '' }}
    </button>
    <button type="button" class="plain-button tough" data-test="gate-no" @click="tell(false)">
      Not tender yet
    </button>
    <p v-if="blocked" class="quiet">
      A gate wants a reading. The clock does not pass it, and neither do I.
    </p>
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
input {
  width: 130px;
  height: 64px;
  font-size: 1.8rem;
  text-align: center;
  border-radius: 14px;
  border: 2px solid var(--kettle-enamel-soft);
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
}
.rests {
  font-size: 1.1rem;
}
.tough {
  min-height: 64px;
  font-size: 1.15rem;
}
p {
  margin: 0;
}
</style>
