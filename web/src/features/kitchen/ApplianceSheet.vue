<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Appliance, ApplianceBody, Effect } from '@/api/client'
import { effectWords } from '@/features/plan'
import { useUnits } from '@/shared/composables/useUnits'
import { length } from '@/shared/format/units'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import { capital } from '@/shared/format/words'

/** One appliance: its figures, stated or assumed, and its own words. Every box may stay empty. */
const props = defineProps<{ appliance: Appliance; bodies: Appliance[]; effects?: Effect[] }>()
const emit = defineEmits<{ keep: [fields: Partial<ApplianceBody>]; drop: [] }>()
const FIELD: Record<string, { field: keyof ApplianceBody; step: number }> = {
  power_w: { field: 'power_w', step: 50 },
  volume_l: { field: 'volume_l', step: 0.5 },
  gauge_kpa: { field: 'gauge_kpa', step: 5 },
  element_w_m2: { field: 'element_w_m2', step: 100 },
  setting_c: { field: 'setting_c', step: 5 },
  top_c: { field: 'top_c', step: 10 },
  preheat_s: { field: 'preheat_min', step: 1 },
  width_m: { field: 'width_mm', step: 10 },
  depth_m: { field: 'depth_mm', step: 10 },
  height_m: { field: 'height_mm', step: 10 },
}
const figures = computed(() => props.appliance.figures.filter((f) => FIELD[f.name]))
const job = computed(
  () =>
    props.appliance.finish ?? (props.appliance.type === 'pot' ? 'pressure' : props.appliance.type),
)
const name = ref(props.appliance.given.name)
const racks = ref('')
const wrongRack = ref('')
const button = ref('')
watch(
  () => props.appliance,
  (a) => {
    name.value = a.given.name
    racks.value = (a.given.racks_mm ?? []).join(', ')
    button.value = a.given.buttons?.[job.value] ?? Object.values(a.given.buttons ?? {})[0] ?? ''
  },
  { immediate: true },
)
const { kitchen } = useUnits()

/** What leaving a figure assumed is worth on tonight's plan. */
function worth(figure: string | null): string {
  const words = effectWords((props.effects ?? []).find((e) => e.name === figure))
  return words ? `assumed; ${words}` : 'assumed'
}
const CLOCKS = [
  { key: 'minutes', text: 'minutes' },
  { key: 'hours', text: 'hours:minutes' },
] as const
const sharing = computed(() => [
  { key: null, text: props.appliance.shares || 'nothing' },
  ...props.bodies.map((b) => ({ key: b.id, text: b.given.name })),
])
const usual = computed(() => props.appliance.given.rack_mm ?? 150)
const rackChoices = computed(() =>
  (props.appliance.racks_mm ?? []).map((mm) => ({
    value: mm,
    label: kitchen.value === 'us' ? length(mm, 'us') : `${Math.round(mm / 10)} cm`,
  })),
)
const rackUsed = computed(
  () => rackChoices.value.find((r) => Math.abs(r.value - usual.value) < 10)?.value,
)

function putRacks(text: string) {
  const words = text.split(/[,;\s]+/).filter(Boolean)
  wrongRack.value = words.find((word) => !(Number(word) > 0)) ?? ''
  if (!wrongRack.value) emit('keep', { racks_mm: words.length ? words.map(Number) : null })
}
</script>

<template>
  <section class="sheet" :aria-label="appliance.given.name">
    <div class="head">
      <input
        v-model="name"
        class="name"
        aria-label="What you call it"
        maxlength="60"
        @change="emit('keep', { name })"
      />
      <el-checkbox
        :model-value="appliance.given.in_use"
        data-test="in-use"
        @change="emit('keep', { in_use: Boolean($event) })"
      >
        in use for plans
      </el-checkbox>
      <el-button class="plain-button" data-test="drop-appliance" @click="emit('drop')">
        Delete
      </el-button>
    </div>
    <p v-if="appliance.instead" class="quiet">
      Plans reckon with “{{ appliance.instead }}”; take it out of use, and they reckon with this
      one.
    </p>
    <div class="figures">
      <NumberField
        v-for="f in figures"
        :key="appliance.id + f.name"
        :label="capital(f.label)"
        :unit="f.unit"
        :step="FIELD[f.name]!.step"
        :model-value="f.assumed ? null : f.value"
        :placeholder="f.assumed ? String(f.value) : ''"
        :note="f.assumed ? worth(f.figure) : ''"
        @update:model-value="emit('keep', { [FIELD[f.name]!.field]: $event })"
      />
    </div>
    <div v-if="appliance.racks_mm.length" class="racks">
      <div class="text">
        <label for="a-racks">Racks, mm below the element</label>
        <el-input
          id="a-racks"
          v-model="racks"
          :placeholder="appliance.racks_mm.join(', ')"
          @change="putRacks(racks)"
        />
      </div>
      <small v-if="wrongRack" class="wrong" role="alert"
        >“{{ wrongRack }}” is not a distance: write millimetres, like 70, 140, 210</small
      >
      <div v-if="appliance.type === 'broiler' && rackChoices.length">
        <span id="rack-used">You use</span>
        <el-segmented
          class="pick-one"
          aria-labelledby="rack-used"
          :model-value="rackUsed"
          :options="rackChoices"
          @change="emit('keep', { rack_mm: Number($event) })"
        />
      </div>
    </div>
    <details>
      <summary>Button names; part of another appliance</summary>
      <div class="words">
        <div class="text">
          <label for="a-button">Button for the job</label>
          <el-input
            id="a-button"
            v-model="button"
            maxlength="40"
            placeholder="as written on it"
            @change="
              emit('keep', { buttons: button ? { ...appliance.given.buttons, [job]: button } : {} })
            "
          />
        </div>
        <PickField
          :model-value="appliance.given.display ?? 'minutes'"
          label="Its clock shows"
          :options="CLOCKS"
          @update:model-value="emit('keep', { display: $event })"
        />
        <el-checkbox
          :model-value="appliance.given.counts_up"
          @change="emit('keep', { counts_up: Boolean($event) })"
        >
          counts up after the end
        </el-checkbox>
        <PickField
          :model-value="appliance.given.body_id ?? null"
          label="Shares the body of"
          :options="sharing"
          @update:model-value="emit('keep', { body_id: $event })"
        />
      </div>
    </details>
  </section>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}
.head {
  display: flex;
  gap: 18px;
  align-items: center;
  flex-wrap: wrap;
}
.name {
  border: 0;
  background: transparent;
  color: var(--kettle-ink);
  font: 700 1.7rem/1.2 var(--kettle-display);
  flex: 1;
  min-width: 200px;
  min-height: 48px;
  padding: 0;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(230px, 100%), 1fr));
  gap: 14px 16px;
  align-items: start;
}
.wrong {
  color: var(--kettle-stop);
}
.racks {
  display: grid;
  gap: 10px;
}
.racks div {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.words {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 14px;
  margin-top: 10px;
}
.text {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
summary {
  cursor: pointer;
  font-weight: 700;
  min-height: 40px;
}
</style>
