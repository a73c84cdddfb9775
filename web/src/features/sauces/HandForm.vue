<script setup lang="ts">
import { computed, ref } from 'vue'
import type { OwnIngredient } from '@/api/client'
import NumberField from '@/shared/ui/NumberField.vue'
import { ALLERGENS, ownByHand, PART_WORDS } from './jar'

/** An ingredient by its parts, in per cent; what is left is fibre and starch. */
const emit = defineEmits<{ add: [item: OwnIngredient] }>()
const name = ref('')
const density = ref<number | null>(1)
const parts = ref<Record<string, number | null>>({
  water: 60,
  sucrose: 0,
  glucose: 0,
  fructose: 0,
  salt: 0,
  acid: 0,
  protein: 0,
  fat: 0,
})
const allergens = ref<string[]>([])
const made = computed(() => ownByHand(name.value, parts.value, density.value ?? 1, allergens.value))
const toggle = (item: string) =>
  (allergens.value = allergens.value.includes(item)
    ? allergens.value.filter((a) => a !== item)
    : [...allergens.value, item])
</script>

<template>
  <form class="hand" @submit.prevent="made.item && emit('add', made.item)">
    <div class="called">
      <label for="h-name">What it is called</label>
      <el-input
        id="h-name"
        v-model="name"
        required
        maxlength="80"
        placeholder="Aunt’s pepper jelly"
        data-test="hand-name"
      />
    </div>
    <div class="row">
      <NumberField
        v-for="(_, part) in parts"
        :key="part"
        v-model="parts[part]!"
        :label="PART_WORDS[part]!"
        unit="%"
        :step="1"
      />
      <NumberField v-model="density" label="weighs" unit="kg a litre" :step="0.05" />
    </div>
    <p class="quiet figure">
      {{
        made.rest >= 0
          ? `${made.rest} % fibre and starch are left.`
          : `${-made.rest} % more than there is.`
      }}
    </p>
    <div class="row" role="group" aria-label="Allergens in it">
      <el-button
        v-for="a in ALLERGENS"
        :key="a"
        class="plain-button"
        :aria-pressed="allergens.includes(a)"
        :class="{ on: allergens.includes(a) }"
        @click="toggle(a)"
      >
        {{ allergens.includes(a) ? '✓ ' : '' }}{{ a }}
      </el-button>
    </div>
    <el-button
      native-type="submit"
      class="ember-button"
      data-test="hand-add"
      :disabled="!made.item"
    >
      Add it
    </el-button>
  </form>
</template>

<style scoped>
.hand {
  display: grid;
  gap: 14px;
  justify-items: start;
}
.row {
  display: flex;
  gap: 12px 18px;
  flex-wrap: wrap;
}
.called {
  display: grid;
  gap: 4px;
  width: min(480px, 100%);
}
label {
  font-weight: 700;
}
p {
  margin: 0;
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
</style>
