<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, type Problem, type ScaleBody, type Scaled } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PickField from '@/shared/ui/PickField.vue'

/** How much is wanted decides; each ingredient follows its own law. */
const props = defineProps<{
  recipe: Omit<ScaleBody, 'by'>
  forKg: number | null
  lines: string[]
}>()
const emit = defineEmits<{ use: [lines: string[]] }>()
const WAYS = [
  { key: 'meat', text: 'to the meat' },
  { key: 'coats', text: 'to the coats' },
  { key: 'servings', text: 'to the plates' },
  { key: 'short', text: 'to what is short' },
]
const by = ref<'meat' | 'coats' | 'servings' | 'short'>('meat')
const meat = ref<{ for_kg: number | null; meat_kg: number | null }>({
  for_kg: props.forKg ?? 1.5,
  meat_kg: 2,
})
const coats = ref<{ surface_m2: number | null; coats: number | null; table_g: number | null }>({
  surface_m2: 0.15,
  coats: 2,
  table_g: 100,
})
const plates = ref<{ for_servings: number | null; servings: number | null }>({
  for_servings: 4,
  servings: 6,
})
const short = ref({ line: 0, have: '' })
const scaled = ref<Scaled>()
const problem = ref<Problem>()
const own = computed(
  () =>
    ({ meat: meat.value, coats: coats.value, servings: plates.value, short: short.value })[
      by.value
    ],
)

async function scale() {
  const answer = await ask(() =>
    api.POST('/api/v1/scale', {
      body: { ...props.recipe, by: by.value, ...own.value } as ScaleBody,
    }),
  )
  problem.value = answer.problem
  scaled.value = answer.data
}
</script>

<template>
  <div class="panel">
    <el-segmented
      v-model="by"
      class="pick-one"
      aria-label="What decides"
      :options="WAYS"
      :props="{ value: 'key', label: 'text' }"
      @change="scaled = undefined"
    />
    <form class="fields" @submit.prevent="scale">
      <template v-if="by === 'meat'">
        <NumberField v-model="meat.for_kg" label="Written for" unit="kg" :step="0.1" />
        <NumberField v-model="meat.meat_kg" label="You have" unit="kg" :step="0.1" />
      </template>
      <template v-else-if="by === 'coats'">
        <NumberField v-model="coats.surface_m2" label="Surface" unit="m²" :step="0.01" />
        <NumberField v-model="coats.coats" label="Coats" unit="" :step="1" />
        <NumberField v-model="coats.table_g" label="For the table" unit="g" :step="10" />
      </template>
      <template v-else-if="by === 'servings'">
        <NumberField v-model="plates.for_servings" label="Written for" unit="plates" :step="1" />
        <NumberField v-model="plates.servings" label="You want" unit="plates" :step="1" />
      </template>
      <template v-else>
        <PickField
          v-model="short.line"
          label="Short of"
          :options="lines.map((line, key) => ({ key, text: line }))"
        />
        <div class="short">
          <label for="s-have">There is</label>
          <el-input id="s-have" v-model="short.have" placeholder="3 tbsp" />
        </div>
      </template>
      <el-button native-type="submit" class="ember-button" data-test="scale">Scale it</el-button>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="scaled">
      <p class="sum figure">
        <b>{{ scaled.factor.toFixed(2) }} times</b>, {{ Math.round(scaled.total_g) }} g in
        all<template v-if="scaled.gap">; {{ scaled.gap }}</template
        >.
      </p>
      <ul class="figure">
        <li v-for="line in scaled.lines" :key="line.name + line.from_g">
          <b>{{ line.text }}</b> <span class="quiet">{{ line.spoons }}</span>
          <em v-if="line.law !== 'straight'">{{ line.law }}</em>
        </li>
      </ul>
      <el-button
        class="plain-button"
        data-test="use-scaled"
        @click="
          emit(
            'use',
            scaled.lines.map((l) => l.text),
          )
        "
      >
        Use these amounts
      </el-button>
    </template>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 14px;
}
.fields {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: end;
}
.short {
  display: grid;
  gap: 4px;
  width: 140px;
}
.fields > .pick {
  width: 260px;
}
label {
  font-weight: 700;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 2 280px;
}
li {
  padding: 5px 0;
  break-inside: avoid;
}
em {
  color: var(--kettle-careful);
  font-size: 0.95rem;
}
.sum {
  margin: 0;
}
.plain-button {
  justify-self: start;
}
</style>
