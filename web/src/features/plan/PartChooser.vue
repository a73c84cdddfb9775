<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type Choices, type Dish, type KeptSauce } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useUnits } from '@/shared/composables/useUnits'
import { vArrows } from '@/shared/composables/arrows'
import { lengthFactor, massFactor } from '@/shared/format/units'
import { keptSauceForDish } from './keptSauce'
import CutPicture from '@/shared/ui/CutPicture.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import ChoiceList from './ChoiceList.vue'
import FigureField from './FigureField.vue'
import MinutesField from './MinutesField.vue'
import ServeField from './ServeField.vue'
import { useDraft } from './draft'
import { dialOf, RELEASES, settingOf, type PartName } from './sentence'

const props = defineProps<{ part: PartName; dish: Dish; choices: Choices }>()
const emit = defineEmits<{ done: [] }>()
const root = ref<HTMLElement>()

/** Put the focus on what is chosen now, or on the first thing there is. */
function enter() {
  const chosen = root.value?.querySelector<HTMLElement>('[aria-checked="true"], .on')
  const first = root.value?.querySelector<HTMLElement>('input, button, a')
  ;(chosen ?? first)?.focus()
}
defineExpose({ enter })
const draft = useDraft()
const { kitchen } = useUnits()
const cut = computed(() => props.choices.cuts.find((c) => c.key === props.dish.cut))
const many = computed(
  () => ({ metric: { mass: 'kg', length: 'mm' }, us: { mass: 'lb', length: 'in' } })[kitchen.value],
)

const kept = shallowRef<KeptSauce[]>([])
const refusedSauce = ref('')
watch(
  () => props.part,
  async (part) => {
    if (part === 'sauce')
      kept.value = ((await ask(() => api.GET('/api/v1/sauces'))).data?.sauces ?? []).filter(
        (s) => s.document.kind === 'glaze' || s.document.kind === 'table',
      )
  },
  { immediate: true },
)

/** A shipped sauce by its key, or a copy of one of the cook's own. */
async function pickSauce(key: string) {
  const own = kept.value.find((s) => key === `kept:${s.id}`)
  if (!own) return pick({ sauce: key || null })
  const { sauce, problem } = await keptSauceForDish(own)
  refusedSauce.value = problem?.detail ?? ''
  if (sauce) pick({ sauce })
}

function pick(fields: Partial<Dish>) {
  draft.change(fields)
  emit('done')
}

const bites = computed(() => cut.value?.bites ?? [])
const releases = computed(() =>
  Object.entries(RELEASES).map(([key, r]) => ({
    key,
    text: r.text,
    hint: key === cut.value?.release ? `${r.hint}; usual here` : r.hint,
  })),
)
const { known } = useKitchenFigures()
const heats = computed(() =>
  props.choices.first_heats.map((h) => ({ key: h.key, text: h.done, hint: h.hint })),
)
const heat = computed(() =>
  props.choices.first_heats.find((h) => h.key === (props.dish.tenderise ?? 'pressure')),
)
const dial = computed(() => dialOf(props.dish, props.choices, known.value?.figures ?? {}))
function setDial(temp: number | null) {
  draft.change({ kitchen: { [dial.value!.name]: temp } } as unknown as Partial<Dish>)
}
const sides = (key: string) => props.choices.finishes.find((f) => f.key === key)?.sides ?? 1
const finishes = computed(() =>
  props.choices.finishes.map((f) => ({ key: f.key, text: f.done, hint: f.hint })),
)
const sauces = computed(() => [
  ...kept.value.map((s) => ({ key: `kept:${s.id}`, text: s.document.name, hint: 'yours' })),
  ...props.choices.sauces.map((s) => ({
    key: s.key,
    text: s.name,
    hint: `${Math.round(s.sugars * 100)} % sugars`,
    swatch: s.colour,
  })),
  { key: '', text: 'no sauce', hint: 'bare browning, no caramel' },
])
</script>

<template>
  <div ref="root" class="chooser" role="group">
    <div v-if="part === 'cut'" v-arrows class="cuts">
      <button
        v-for="c in choices.cuts"
        :key="c.key"
        type="button"
        :class="{ on: c.key === dish.cut }"
        @click="(draft.change({}, c), emit('done'))"
      >
        <CutPicture :cut="c.key" :size="56" />{{ c.name }}
      </button>
    </div>
    <FigureField
      v-else-if="part === 'mass'"
      field="mass_kg"
      label="How much"
      :value="dish.mass_kg"
      :factor="massFactor(kitchen)"
      :unit="many.mass"
      :step="kitchen === 'metric' ? 0.1 : 0.25"
      :decimals="2"
    />
    <FigureField
      v-else-if="part === 'pieces'"
      field="pieces"
      label="Pieces"
      :value="dish.pieces"
      :factor="1"
      unit="pieces"
      :step="1"
      :decimals="0"
    />
    <template v-else-if="part === 'thickness'">
      <FigureField
        field="thickness_mm"
        label="Thickest place"
        :value="dish.thickness_mm"
        :factor="lengthFactor(kitchen)"
        :unit="many.length"
        :step="kitchen === 'metric' ? 5 : 0.25"
        :decimals="kitchen === 'metric' ? 0 : 2"
      />
      <p class="quiet">Or lay fingers against it:</p>
      <div v-arrows class="fingers">
        <el-button
          v-for="n in [1, 2, 3, 4]"
          :key="n"
          class="plain-button"
          @click="pick({ thickness_mm: n * 18 })"
        >
          {{ n }}
        </el-button>
      </div>
    </template>
    <ChoiceList
      v-else-if="part === 'state'"
      :options="[
        { key: 'fridge', text: 'from the fridge' },
        { key: 'frozen', text: 'straight from frozen', hint: 'the pot takes longer to come up' },
      ]"
      :chosen="dish.state ?? 'fridge'"
      @pick="pick({ state: $event as Dish['state'] })"
    />
    <template v-else-if="part === 'tenderise'">
      <ChoiceList
        two
        :options="heats"
        :chosen="dish.tenderise ?? 'pressure'"
        @pick="
          draft.change({ tenderise: $event as Dish['tenderise'], timer_min: null, liquid_l: null })
        "
      />
      <div v-if="dial?.settings.length" class="setting">
        <span id="set-to">Set to</span>
        <el-segmented
          class="pick-one"
          aria-labelledby="set-to"
          :model-value="settingOf(dial)?.value"
          :options="dial.settings.map((s) => ({ label: s.name, value: s.value }))"
          @change="setDial(Number($event))"
        />
      </div>
      <NumberField
        v-else-if="dial"
        :key="dial.name"
        :model-value="typeof dial.stated === 'number' ? dial.stated : null"
        label="Set at"
        unit="°C"
        :step="5"
        :placeholder="String(dial.usual)"
        @update:model-value="setDial"
      />
      <FigureField
        v-if="heat?.takes_liquid"
        field="liquid_l"
        label="Liquid"
        :value="dish.liquid_l ?? null"
        :factor="1"
        unit="L"
        :step="0.05"
        :decimals="2"
        optional
      />
      <FigureField
        field="timer_min"
        label="Your own timer"
        :value="dish.timer_min ?? null"
        :factor="1"
        unit="min"
        :step="1"
        :decimals="0"
        optional
      />
    </template>
    <ChoiceList
      v-else-if="part === 'bite'"
      :options="bites"
      :chosen="dish.bite ?? 'falls'"
      @pick="pick({ bite: $event as Dish['bite'], timer_min: null })"
    />
    <ChoiceList
      v-else-if="part === 'release'"
      :options="releases"
      :chosen="dish.release ?? cut?.release ?? ''"
      @pick="pick({ release: $event as Dish['release'] })"
    />
    <template v-else-if="part === 'finish'">
      <ChoiceList
        two
        :options="finishes"
        :chosen="dish.finish ?? 'broiler'"
        @pick="
          draft.change(
            sides($event) > 1
              ? { finish: $event as Dish['finish'], flips_min: [] }
              : { finish: $event as Dish['finish'] },
          )
        "
      />
      <MinutesField
        v-if="sides(dish.finish ?? 'broiler') === 1"
        field="flips_min"
        label="Turn it at"
        :value="dish.flips_min ?? []"
        hint="minutes under the heat; none: one side is browned"
        @change="draft.change({ flips_min: $event })"
      />
    </template>
    <ChoiceList
      v-else-if="part === 'want'"
      :options="
        dish.sauce
          ? [
              { key: 'amber', text: 'to amber', hint: 'sweet, wide window' },
              { key: 'mahogany', text: 'dark, to mahogany', hint: 'deeper, and closer to bitter' },
            ]
          : [
              { key: 'amber', text: 'until browned' },
              { key: 'mahogany', text: 'until well browned' },
            ]
      "
      :chosen="dish.want ?? 'amber'"
      @pick="pick({ want: $event as Dish['want'] })"
    />
    <template v-else-if="part === 'sauce'">
      <ChoiceList
        :options="sauces"
        :chosen="
          typeof dish.sauce === 'string'
            ? dish.sauce
            : dish.sauce
              ? `kept:${dish.sauce.sauce_id}`
              : ''
        "
        @pick="pickSauce"
      />
      <p v-if="refusedSauce" role="alert">{{ refusedSauce }}</p>
      <RouterLink to="/sauces" class="quiet">Write one of your own</RouterLink>
    </template>
    <template v-else-if="part === 'coats'">
      <FigureField
        field="coats"
        label="Coats"
        :value="dish.coats ?? 1"
        :factor="1"
        unit="coats"
        :step="1"
        :decimals="0"
      />
      <FigureField
        field="coat_mm"
        label="Each about"
        :value="dish.coat_mm ?? 0.5"
        :factor="1"
        unit="mm"
        :step="0.1"
        :decimals="1"
      />
      <MinutesField
        field="coats_min"
        label="Brush at"
        :value="dish.coats_min ?? []"
        hint="minutes under the heat, 0 is before; empty: each when the last has set"
        @change="draft.change({ coats_min: $event.length ? $event : null })"
      />
    </template>
    <ServeField
      v-else
      :serve-at="dish.serve_at ?? null"
      @change="draft.change({ serve_at: $event })"
    />
  </div>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: 14px;
  font-size: 1.05rem;
}
.cuts {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  max-height: 420px;
  overflow: auto;
}
.cuts button {
  display: grid;
  justify-items: center;
  gap: 4px;
  padding: 8px 4px;
  border: 2px solid transparent;
  border-radius: 12px;
  background: var(--kettle-paper);
  color: var(--kettle-ink);
  cursor: pointer;
  font-size: 0.95rem;
  line-height: 1.2;
}
.cuts button.on {
  border-color: var(--kettle-ember);
  font-weight: 700;
}
.setting {
  display: flex;
  align-items: center;
  gap: 14px;
  flex-wrap: wrap;
}
.fingers {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
}
p {
  margin: 0;
}
</style>
