<script setup lang="ts">
/** What goes with the wide button: it was earlier, it wants longer, it was a mistake, it is watched. */
import { computed, ref } from 'vue'
import type { EventBody, Live, Step } from '@/api/client'
import LateGuests from './LateGuests.vue'
import MeasureForm from './MeasureForm.vue'

const props = defineProps<{ cook: Live; step?: Step; call?: Live['alarms'][number] }>()
const emit = defineEmits<{ told: [body: EventBody]; hush: [] }>()
const AGO_S = 120

/** Food in its slow heat can be measured, but for a pot under pressure. */
const measuring = ref(false)
const IN_HEAT = ['warming', 'holding']
const measurable = computed(
  () => IN_HEAT.includes(props.cook.picture.shows) && props.cook.picture.vessel !== 'pressure',
)

const later = (minutes: number) => emit('told', { kind: 'later', seconds: 60 * minutes })
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
    <LateGuests v-if="cook.supper === null" name="later" @later="later" />
    <slot />
    <el-button
      class="plain-button"
      :disabled="!cook.undoable"
      data-test="undo"
      @click="$emit('told', { kind: 'undo' })"
    >
      Undo
    </el-button>
    <MeasureForm v-if="measuring && measurable" :cook="cook" @done="measuring = false" />
  </div>
</template>

<style scoped>
.small {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
}
.small .plain-button {
  min-height: 60px;
}
</style>
