<script setup lang="ts">
/** What goes with the wide button: it was earlier, it wants longer, it was a mistake, it is watched. */
import { computed, ref } from 'vue'
import type { EventBody, Live, Step } from '@/api/client'
import MeasureForm from './MeasureForm.vue'

const props = defineProps<{ cook: Live; step?: Step; call?: Live['alarms'][number] }>()
const emit = defineEmits<{ told: [body: EventBody]; hush: [] }>()
const AGO_S = 120
const LATER_MIN = [10, 20, 30]
const asking = ref(false)

/** Food in its slow heat can be measured, but for a pot under pressure. */
const measuring = ref(false)
const IN_HEAT = ['warming', 'holding']
const measurable = computed(
  () => IN_HEAT.includes(props.cook.picture.shows) && props.cook.picture.vessel !== 'pressure',
)

function later(minutes: number) {
  asking.value = false
  emit('told', { kind: 'later', seconds: 60 * minutes })
}
</script>

<template>
  <div class="small">
    <el-button v-if="call" class="plain-button" data-test="hush" @click="$emit('hush')">
      I am watching it
    </el-button>
    <el-button
      v-if="step && !cook.gate && step.key !== 'wait'"
      class="plain-button"
      data-test="ago"
      @click="$emit('told', { kind: 'done', step: step.key, ago_s: AGO_S })"
    >
      Two minutes ago
    </el-button>
    <el-button
      v-if="step?.who === 'machine' && step.key !== 'wait'"
      class="plain-button"
      data-test="more"
      @click="$emit('told', { kind: 'extend', step: step.key, seconds: 60 })"
    >
      Give it another minute
    </el-button>
    <el-button
      v-if="measurable"
      class="plain-button"
      :aria-expanded="measuring"
      data-test="measure"
      @click="measuring = !measuring"
    >
      I measured it
    </el-button>
    <el-button
      v-if="cook.supper === null"
      class="plain-button"
      :aria-expanded="asking"
      data-test="later"
      @click="asking = !asking"
    >
      Guests are late
    </el-button>
    <el-button
      class="plain-button"
      :disabled="!cook.undoable"
      data-test="undo"
      @click="$emit('told', { kind: 'undo' })"
    >
      Undo
    </el-button>
    <MeasureForm v-if="measuring && measurable" :cook="cook" @done="measuring = false" />
    <div v-if="asking" class="late" role="group" aria-label="How much later">
      <el-button
        v-for="minutes in LATER_MIN"
        :key="minutes"
        class="plain-button"
        :data-test="`later-${minutes}`"
        @click="later(minutes)"
      >
        {{ minutes }} min
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.small {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
}
.late {
  grid-column: 1 / -1;
  display: flex;
  gap: 10px;
}
.late .el-button {
  flex: 1;
  margin: 0;
}
.small .plain-button {
  min-height: 60px;
}
</style>
