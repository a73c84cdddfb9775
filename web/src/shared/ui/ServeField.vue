<script setup lang="ts">
import { computed } from 'vue'
import dayjs from 'dayjs'
import { useClock } from '@/shared/composables/useClock'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { day } from '@/shared/format/time'
import MomentPicker from './MomentPicker.vue'

const props = defineProps<{ serveAt: string | null }>()
const { known } = useKitchenFigures()
const now = useClock(30_000)
/** The usual hours of eating, the next of each. */
const usual = computed(() =>
  (known.value?.settings.meal_hours ?? []).map((text) => {
    const [hour, minute] = text.split(':').map(Number)
    const today = dayjs(now.value).hour(hour!).minute(minute!).second(0).millisecond(0)
    const next = today.isAfter(now.value) ? today : today.add(1, 'day')
    return { moment: next.toISOString(), text: `${text} ${day(next.toDate(), now.value)}` }
  }),
)
const emit = defineEmits<{ change: [moment: string | null] }>()
const value = computed({
  get: () => (props.serveAt ? dayjs(props.serveAt).toDate() : null),
  set: (next: Date | null) => {
    if (next) emit('change', dayjs(next).second(0).millisecond(0).toISOString())
  },
})

/** Later by some minutes, on a round five minutes. */
function later(minutes: number) {
  const from = dayjs(props.serveAt ?? undefined).add(minutes, 'minute')
  emit(
    'change',
    from
      .minute(Math.ceil(from.minute() / 5) * 5)
      .second(0)
      .millisecond(0)
      .toISOString(),
  )
}
</script>

<template>
  <div class="serve">
    <el-button class="plain-button" :aria-pressed="!serveAt" @click="$emit('change', null)">
      as soon as it can be
    </el-button>
    <el-button
      v-for="u in usual"
      :key="u.moment"
      class="plain-button figure"
      :aria-pressed="serveAt === u.moment"
      data-test="usual-hour"
      @click="$emit('change', u.moment)"
    >
      {{ u.text }}
    </el-button>
    <label for="f-serve">or on the table at</label>
    <MomentPicker id="f-serve" v-model="value" :now="now" placeholder="another hour…" />
    <div class="steps">
      <el-button class="plain-button" @click="later(-15)">15 min sooner</el-button>
      <el-button class="plain-button" @click="later(serveAt ? 15 : 120)">
        {{ serveAt ? '15 min later' : 'in 2 hours' }}
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.serve {
  display: grid;
  gap: 10px;
}
label {
  font-weight: 700;
}
.serve :deep(.el-date-editor) {
  width: min(360px, 100%);
  font-size: 1.15rem;
}
.steps {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
