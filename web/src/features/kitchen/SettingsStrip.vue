<script setup lang="ts">
import { ref, watch } from 'vue'
import type { KitchenSettings } from '@/api/client'
import { useUnits } from '@/shared/composables/useUnits'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'

/** What holds for the whole kitchen. Everything may stay as it is. */
const props = defineProps<{ settings: KitchenSettings; gear: string[] }>()
const emit = defineEmits<{ settle: [fields: Partial<KitchenSettings>] }>()
const { kitchen, degrees } = useUnits()
const WEIGHTS = [
  { key: 'metric', text: 'kg and g' },
  { key: 'us', text: 'pounds and cups' },
] as const
const DEGREES = [
  { key: 'C', text: '°C' },
  { key: 'F', text: '°F' },
] as const
const hours = ref('')
watch(
  () => props.settings,
  (s) => (hours.value = (s.meal_hours ?? []).join(', ')),
  { immediate: true },
)

function toggle(item: string) {
  const own = props.settings.gear ?? []
  emit('settle', { gear: own.includes(item) ? own.filter((g) => g !== item) : [...own, item] })
}
</script>

<template>
  <section class="settings" aria-label="The whole kitchen">
    <h2>The whole kitchen</h2>
    <div class="row">
      <NumberField
        :model-value="settings.altitude_m ?? null"
        label="Height above the sea"
        unit="m"
        :step="50"
        placeholder="0"
        :note="settings.altitude_m == null ? 'assumed' : ''"
        @update:model-value="emit('settle', { altitude_m: $event })"
      />
      <NumberField
        :model-value="settings.hands ?? 1"
        label="Hands that cook"
        unit="people"
        :step="1"
        @update:model-value="emit('settle', { hands: $event ?? 1 })"
      />
      <NumberField
        :model-value="settings.price_kwh ?? null"
        label="A kilowatt hour costs"
        unit=""
        :step="0.01"
        @update:model-value="emit('settle', { price_kwh: $event })"
      />
      <div class="hours">
        <label for="s-hours">Usual hours of eating</label>
        <el-input
          id="s-hours"
          v-model="hours"
          placeholder="19:00"
          @change="emit('settle', { meal_hours: hours.split(/[,;\s]+/).filter(Boolean) })"
        />
      </div>
      <PickField
        :model-value="kitchen"
        label="Weights"
        :options="WEIGHTS"
        data-test="measures"
        @update:model-value="emit('settle', { measures: $event })"
      />
      <PickField
        :model-value="degrees"
        label="Heat"
        :options="DEGREES"
        data-test="degrees"
        @update:model-value="emit('settle', { temperature: $event })"
      />
    </div>
    <p>At hand:</p>
    <div class="gear">
      <el-button
        v-for="item in gear"
        :key="item"
        class="plain-button"
        :aria-pressed="(settings.gear ?? []).includes(item)"
        :class="{ on: (settings.gear ?? []).includes(item) }"
        @click="toggle(item)"
      >
        {{ (settings.gear ?? []).includes(item) ? '✓ ' : '' }}{{ item }}
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 12px;
  margin-top: 36px;
}
.row {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(238px, 1fr));
  gap: 16px 20px;
  align-items: start;
}
.hours {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
.gear {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.on {
  background: var(--kettle-enamel);
  color: var(--kettle-paper);
  border-color: var(--kettle-enamel);
}
html.dark .on {
  background: var(--kettle-enamel-soft);
  border-color: var(--kettle-enamel-soft);
  color: var(--kettle-paper);
}
p {
  margin: 0;
  font-weight: 700;
}
</style>
