<script setup lang="ts">
/** Where the dial of this fire stands, or its tray hangs: told as it is found, since it went under. */
import { computed, ref } from 'vue'
import type { EventBody, Live } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import { temperature } from '@/shared/format/units'

type Fire = NonNullable<Live['fire']>
const props = defineProps<{ fire: Fire; dial: NonNullable<Fire['dial']> }>()
const emit = defineEmits<{ told: [body: EventBody] }>()
const { degrees } = useUnits()
const open = ref(false)
const shown = (value: number) =>
  props.dial.unit === 'm' ? `${Math.round(100 * value)} cm` : temperature(value, degrees.value)
const now = computed(() =>
  props.dial.unit === 'm'
    ? `Tray ${shown(props.dial.value)} from the element`
    : `Set to ${shown(props.dial.value)}`,
)
const read = computed(() =>
  props.dial.read === null ? '' : `, its thermometer says ${shown(props.dial.read)}`,
)
const others = computed(() =>
  props.dial.usual.filter((one) => shown(one) !== shown(props.dial.value)),
)

function tell(dial: number) {
  open.value = false
  emit('told', { kind: 'dial', step: props.fire.name, dial })
}
</script>

<template>
  <div class="dial">
    <el-button class="plain-button" :aria-expanded="open" data-test="dial" @click="open = !open">
      {{ now }}{{ read }}
    </el-button>
    <fieldset v-if="open">
      <legend>No, since it went under it is</legend>
      <el-button
        v-for="one in others"
        :key="one"
        class="plain-button"
        :data-test="`dial-${Math.round(dial.unit === 'm' ? 100 * one : one)}`"
        @click="tell(one)"
      >
        {{ shown(one) }}
      </el-button>
    </fieldset>
  </div>
</template>

<style scoped>
/* Its button stands beside others; what it opens, under all of them. */
.dial {
  display: contents;
}
.dial > .plain-button {
  min-height: 56px;
  margin: 0;
}
fieldset {
  order: 1;
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  border: 0;
  margin: 0;
  padding: 0;
}
fieldset .plain-button {
  min-height: 60px;
  min-width: 88px;
  margin: 0;
}
legend {
  font-weight: 700;
  padding: 0 0 8px;
}
</style>
