<script setup lang="ts">
/** What can come next: the four likeliest, and the rest on a tap. */
import { computed, ref } from 'vue'
import type { ChainForecast } from '@/api/client'

const FIRST = 4
const props = defineProps<{ after: string; forecast: ChainForecast }>()
defineEmits<{ put: [offer: ChainForecast['offers'][number]] }>()
const all = ref(false)
const offers = computed(() => {
  const by = new Map(props.forecast.offers.map((one) => [one.key, one]))
  return (props.forecast.joints[props.after]?.offers ?? []).flatMap((key) => by.get(key) ?? [])
})
const shown = computed(() => (all.value ? offers.value : offers.value.slice(0, FIRST)))
</script>

<template>
  <div class="menu">
    <p>{{ after ? 'And then:' : 'First of all:' }}</p>
    <el-button
      v-for="offer in shown"
      :key="offer.key"
      class="plain-button"
      :data-test="`offer-${offer.key}`"
      @click="$emit('put', offer)"
    >
      {{ offer.text }}
    </el-button>
    <el-button
      v-if="!all && offers.length > FIRST"
      class="plain-button more"
      data-test="offer-more"
      @click="all = true"
    >
      More
    </el-button>
  </div>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 8px;
}
.menu .el-button {
  margin: 0;
  justify-content: flex-start;
}
p {
  margin: 0;
  font-weight: 700;
}
.more {
  border-style: dotted;
}
</style>
