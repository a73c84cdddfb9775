<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type OwnIngredient, type Problem } from '@/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import HandForm from './HandForm.vue'

/** An ingredient of one's own, read off a bottle or entered by hand. */
const props = defineProps<{ own: OwnIngredient[] }>()
const emit = defineEmits<{ add: [item: OwnIngredient]; remove: [key: string] }>()
const way = ref<'label' | 'hand'>('label')
const name = ref('')
const order = ref('')
const figures = ref<Record<string, number | null>>({
  serving_g: 30,
  sugars_g: 10,
  sodium_mg: 300,
  protein_g: 0,
  fat_g: 0,
})
const problem = ref<Problem>()
const says = ref('')

async function read() {
  const body = {
    name: name.value,
    ...figures.value,
    order: order.value
      .split(/[,;]/)
      .map((s) => s.trim())
      .filter(Boolean),
  }
  const answer = await ask(() => api.POST('/api/v1/ingredients/label', { body: body as never }))
  problem.value = answer.problem
  says.value = answer.data?.says ?? ''
  if (answer.data) emit('add', answer.data.ingredient)
}
</script>

<template>
  <el-segmented
    v-model="way"
    class="pick-one"
    aria-label="Where the figures come from"
    :options="[
      { value: 'label', label: 'from its label' },
      { value: 'hand', label: 'by hand' },
    ]"
  />
  <HandForm v-if="way === 'hand'" @add="((says = ''), emit('add', $event))" />
  <form v-else class="bottle" @submit.prevent="read">
    <div class="text">
      <label for="b-name">What it says on the bottle</label>
      <el-input
        id="b-name"
        v-model="name"
        required
        maxlength="80"
        placeholder="Harbour sauce"
        data-test="bottle-name"
      />
    </div>
    <div class="row">
      <NumberField v-model="figures.serving_g!" fixed label="One serving" unit="g" :step="5" />
      <NumberField v-model="figures.sugars_g!" fixed label="Sugars" unit="g" :step="1" />
      <NumberField v-model="figures.sodium_mg!" fixed label="Sodium" unit="mg" :step="10" />
      <NumberField v-model="figures.protein_g!" fixed label="Protein" unit="g" :step="0.5" />
      <NumberField v-model="figures.fat_g!" fixed label="Fat" unit="g" :step="0.5" />
    </div>
    <div class="text">
      <label for="b-order">Its ingredients, in their order</label>
      <el-input id="b-order" v-model="order" placeholder="tomato paste, brown sugar, vinegar" />
    </div>
    <el-button native-type="submit" class="ember-button" data-test="bottle-read"
      >Read the label</el-button
    >
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="says" role="status">{{ says }}</p>
  </form>
  <template v-if="props.own.length">
    <p>Yours; write them into a line by their names:</p>
    <ul>
      <li v-for="item in props.own" :key="item.key">
        {{ item.name }}
        <el-button class="plain-button" @click="emit('remove', item.key)"> forget it </el-button>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.bottle {
  display: grid;
  gap: 14px;
  justify-items: start;
}
.row {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
}
.text {
  display: grid;
  gap: 4px;
  width: min(480px, 100%);
}
label {
  font-weight: 700;
}
ul {
  margin: 0;
  padding-left: 20px;
}
p {
  margin: 12px 0 0;
}
.pick-one {
  margin-bottom: 14px;
}
</style>
