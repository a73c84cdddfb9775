<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import {
  api,
  fetched,
  type Appliance,
  type Chain,
  type Choices,
  type Fit,
  type Problem,
} from '@/api/client'
import { useLast } from '@/shared/composables/useLast'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { fromAbove, fromTheSide } from './drawing'

/** Whether the food fits, before anything is hot: from above and from the side, to scale. */
const props = defineProps<{
  appliance: Appliance
  inside: NonNullable<Appliance['inside']>
  choices: Choices
  food: Chain['food'] | null
}>()
const SOON_MS = 150
const AGAIN_MS = 15_000
const cut = ref(props.food?.cut ?? props.choices.cuts[0]!.key)
const mass = ref<number | null>(Number(props.food?.mass_kg ?? props.choices.cuts[0]!.mass_kg))
const pieces = ref<number | null>(Number(props.food?.pieces ?? props.choices.cuts[0]!.pieces))
const thick = ref<number | null>(
  Number(props.food?.thickness_mm ?? props.choices.cuts[0]!.thickness_mm),
)
const trivet = ref<number | null>(0)
const LYING = [
  { key: 'gap', text: 'one layer, air between' },
  { key: 'touching', text: 'one layer, touching' },
  { key: 'layers', text: 'in layers' },
] as const
// What is packed in layers, in liquid.
const WET = ['pot', 'dish', 'slow', 'pan']
const lying = ref<(typeof LYING)[number]['key']>(
  WET.includes(props.appliance.type) ? 'layers' : 'gap',
)
const liquid = ref<number | null>(null)
const swells = ref(false)
const pot = computed(() => WET.includes(props.appliance.type))
const box = computed(() => ({
  depth_mm: props.inside.width_mm,
  least_liquid_l: 0,
  zones: 1,
  volume_l: null,
  ...props.inside,
}))

function choose(key: string) {
  cut.value = key
  const found = props.choices.cuts.find((c) => c.key === key)!
  mass.value = found.mass_kg
  pieces.value = found.pieces
  thick.value = found.thickness_mm
}

const body = computed(() =>
  JSON.stringify({
    cut: cut.value,
    mass_kg: mass.value,
    pieces: pieces.value,
    thickness_mm: thick.value,
    inside: box.value,
    touching: lying.value !== 'gap',
    stacked: lying.value === 'layers',
    trivet_mm: trivet.value ?? 0,
    liquid_l: pot.value ? liquid.value : null,
    swells: pot.value && swells.value,
  }),
)
const asked = refDebounced(body, SOON_MS)
const query = useQuery<Fit, Problem>({
  queryKey: ['fit', asked],
  queryFn: ({ signal }) =>
    fetched(api.POST('/api/v1/fit', { body: JSON.parse(asked.value) as never, signal })),
  staleTime: Infinity,
  retry: false,
  refetchInterval: ({ state }) => (state.error?.status === 0 ? AGAIN_MS : false),
})
const fit = useLast(query.data)
const problem = query.error
const SIZE = 250
const above = computed(() => (fit.value ? fromAbove(fit.value, box.value, SIZE) : null))
const side = computed(() =>
  fit.value
    ? fromTheSide(fit.value, box.value.height_mm, trivet.value ?? 0, pieces.value ?? 1)
    : null,
)
</script>

<template>
  <section class="fit" aria-label="Does it fit">
    <h3>Does it fit?</h3>
    <div class="ask">
      <PickField
        :model-value="cut"
        label="What"
        :options="choices.cuts.map((c) => ({ key: c.key, text: c.name }))"
        data-test="fit-cut"
        @update:model-value="choose"
      />
      <NumberField v-model="mass" label="How much" unit="kg" :step="0.1" />
      <NumberField v-model="pieces" label="Pieces" unit="" :step="1" />
      <NumberField v-model="thick" label="Thickness" unit="mm" :step="5" />
      <NumberField v-model="trivet" label="Rack below it" unit="mm" :step="5" />
      <PickField v-model="lying" label="It lies" :options="LYING" data-test="fit-lying" />
      <template v-if="pot">
        <NumberField
          v-model="liquid"
          label="Liquid"
          unit="L"
          :step="0.05"
          :placeholder="String(box.least_liquid_l)"
          note="the least it needs, if empty"
        />
        <el-checkbox v-model="swells" class="swells" data-test="fit-swells">
          swells or foams (beans, grains)
        </el-checkbox>
      </template>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="fit && above && side" class="drawn" :class="{ stale: problem }">
      <figure>
        <svg
          :width="above.width + 6"
          :height="above.height + 6"
          :viewBox="`-3 -3 ${above.width + 6} ${above.height + 6}`"
          role="img"
          :aria-label="`From above: ${fit.places.length} of ${pieces} pieces in one layer`"
        >
          <circle
            v-if="box.shape === 'round'"
            class="wall"
            :cx="above.width / 2"
            :cy="above.height / 2"
            :r="above.width / 2"
          />
          <rect v-else class="wall" :width="above.width" :height="above.height" rx="8" />
          <rect
            v-for="(p, i) in above.pieces"
            :key="i"
            class="piece"
            :x="p.x"
            :y="p.y"
            :width="p.width"
            :height="p.height"
            rx="6"
          />
        </svg>
        <figcaption class="quiet">
          from above{{ box.zones > 1 ? ', one basket' : '' }}, {{ Math.round(box.width_mm)
          }}{{ box.shape === 'round' ? '' : ` by ${Math.round(box.depth_mm)}` }} mm
        </figcaption>
      </figure>
      <figure>
        <svg
          width="180"
          height="256"
          viewBox="-3 -3 186 262"
          role="img"
          :aria-label="`From the side: ${Math.round(fit.free_mm)} mm free for food of ${fit.height_mm} mm`"
        >
          <rect
            v-if="side.fill !== null"
            class="liquid"
            x="0"
            width="150"
            :y="250 * (1 - Math.min(1, side.fill))"
            :height="250 * Math.min(1, side.fill)"
          />
          <rect
            v-for="(f, i) in side.food"
            :key="i"
            class="piece"
            x="18"
            width="114"
            :y="250 * (1 - Math.min(1.02, f.to))"
            :height="250 * (f.to - f.from) - 2"
            rx="6"
          />
          <line
            v-if="side.trivet > 0"
            class="trivet"
            x1="10"
            x2="140"
            :y1="250 * (1 - side.trivet)"
            :y2="250 * (1 - side.trivet)"
          />
          <path class="wall open" d="M0 0 V250 H150 V0" />
          <g v-if="side.line !== null">
            <line
              class="line"
              x1="-3"
              x2="150"
              :y1="250 * (1 - side.line)"
              :y2="250 * (1 - side.line)"
            />
            <text x="154" :y="250 * (1 - side.line) + 5">line</text>
          </g>
        </svg>
        <figcaption class="quiet">from the side, {{ Math.round(box.height_mm) }} mm</figcaption>
      </figure>
      <div class="says">
        <p v-for="v in fit.verdicts" :key="v.message" :class="v.level.replace(' ', '-')">
          <b>{{ v.level === 'fits' ? 'Fits.' : v.level === 'stop' ? 'Stop.' : 'Careful.' }}</b>
          {{ v.message }} <span v-if="v.repair" class="quiet">{{ v.repair }}.</span>
        </p>
        <p v-if="fit.fill" class="figure">
          {{ fit.fill.liquid_before_l.toFixed(2) }} L of liquid{{
            liquid === null ? ' at least' : ''
          }}; {{ fit.fill.liquid_after_l.toFixed(2) }} L once the juices are out.
          {{ Math.round(fit.fill.share * 100) }} % full, line at
          {{ Math.round(fit.fill.line * 100) }} %.
        </p>
        <p class="quiet">{{ fit.guidance }}</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.fit {
  display: grid;
  gap: 14px;
}
h3 {
  font-size: 1.2rem;
}
.ask {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  align-items: start;
}
.ask > .pick {
  width: 260px;
}
.swells {
  margin-top: 28px;
}
.drawn {
  display: flex;
  gap: 26px;
  flex-wrap: wrap;
  align-items: start;
}
figure {
  margin: 0;
}
.wall {
  fill: var(--kettle-sheet);
  stroke: var(--kettle-enamel-soft);
  stroke-width: 4;
}
.open {
  fill: none;
}
.piece {
  fill: var(--kettle-ember-soft);
  stroke: var(--kettle-ember);
  stroke-width: 2;
}
.liquid {
  fill: var(--kettle-machine);
  opacity: 0.7;
}
.trivet {
  stroke: var(--kettle-ink);
  stroke-width: 3;
  stroke-dasharray: 8 4;
}
.line {
  stroke: var(--kettle-stop);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}
text {
  fill: var(--kettle-stop);
  font-size: 14px;
  font-family: var(--kettle-text);
}
.says {
  flex: 1;
  min-width: 260px;
  display: grid;
  gap: 10px;
}
p {
  margin: 0;
}
.says .stop {
  border-left: 6px solid var(--kettle-stop);
  padding-left: 12px;
}
.says .careful {
  border-left: 6px solid var(--kettle-careful);
  padding-left: 12px;
}
.says .fits {
  border-left: 6px solid var(--kettle-good);
  padding-left: 12px;
}
.stale {
  opacity: 0.5;
}
</style>
