<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type OwnIngredient, type Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'

/** An ingredient of one's own, read off a bottle. */
const props = defineProps<{ own: OwnIngredient[] }>()
const emit = defineEmits<{ add: [item: OwnIngredient]; remove: [key: string] }>()
const name = ref('')
const order = ref('')
const figures = ref<Record<string, number | null>>({ serving_g: 30, sugars_g: 10, sodium_mg: 300, protein_g: 0, fat_g: 0 })
const problem = ref<Problem>()
const says = ref('')

async function read() {
  const body = { name: name.value, ...figures.value, order: order.value.split(/[,;]/).map((s) => s.trim()).filter(Boolean) }
  const answer = await ask(() => api.POST('/api/v1/ingredients/label', { body: body as never }))
  problem.value = answer.problem
  says.value = answer.data?.says ?? ''
  if (answer.data) emit('add', answer.data.ingredient)
}
</script>

<template>
  <form class="bottle" @submit.prevent="read">
    <label>What it says on the bottle<input v-model="name" required maxlength="80" placeholder="Harbour sauce" data-test="bottle-name" /></label>
    <div class="row">
      <NumberField v-model="figures.serving_g!" label="One serving" unit="g" :step="5" />
      <NumberField v-model="figures.sugars_g!" label="Sugars" unit="g" :step="1" />
      <NumberField v-model="figures.sodium_mg!" label="Sodium" unit="mg" :step="10" />
      <NumberField v-model="figures.protein_g!" label="Protein" unit="g" :step="0.5" />
      <NumberField v-model="figures.fat_g!" label="Fat" unit="g" :step="0.5" />
    </div>
    <label>Its ingredients, in their order<input v-model="order" placeholder="tomato paste, brown sugar, vinegar" /></label>
    <button type="submit" class="ember-button" data-test="bottle-read">Read the label</button>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="says" role="status">{{ says }} Write it into a line by its name.</p>
    <ul v-if="props.own.length">
      <li v-for="item in props.own" :key="item.key">{{ item.name }} <button type="button" class="plain-button" @click="emit('remove', item.key)">forget it</button></li>
    </ul>
  </form>
</template>

<style scoped>
.bottle { display: grid; gap: 14px; justify-items: start; }
.row { display: flex; gap: 14px; flex-wrap: wrap; }
label { display: grid; gap: 4px; font-weight: 700; width: min(480px, 100%); }
input { height: 52px; font-size: 1.05rem; border-radius: 12px; border: 2px solid var(--kettle-line); background: var(--kettle-sheet); color: var(--kettle-ink); padding: 0 12px; width: 100%; }
ul { margin: 0; padding-left: 20px; }
p { margin: 0; }
</style>
