<script setup lang="ts">
import { computed } from 'vue'
import type { Chain } from '@/api/client'
import HeatPicture from '@/shared/ui/HeatPicture.vue'

/** A chain to pick: its heats, its name, and what is said of it. */
const props = defineProps<{ chain: Chain; title: string; says: string }>()
defineEmits<{ pick: [] }>()

// The drawing of each heat is that of its slow or its fierce model.
const DRAWN: Record<string, string> = {
  slow_cooker: 'slow',
  smoker: 'smoke',
  oven: 'low_oven',
  air_fryer: 'air_fry',
}

/** The heats of the chain in order, each once in a row. */
const heats = computed(() => {
  const found: string[] = []
  const walk = (stages: Chain['stages']) => {
    for (const stage of stages) {
      if (stage.kind === 'heat') found.push(DRAWN[stage.heat] ?? stage.heat)
      if (stage.kind === 'rounds') walk(stage.stages as Chain['stages'])
      if (stage.kind === 'split')
        stage.shares.forEach((share) => walk(share.stages as Chain['stages']))
    }
  }
  walk(props.chain.stages)
  return found.filter((heat, i) => heat !== found[i - 1])
})
</script>

<template>
  <button type="button" class="pick-card" @click="$emit('pick')">
    <span class="heats" aria-hidden="true">
      <HeatPicture v-for="(heat, i) in heats" :key="i" :heat="heat" :size="44" />
    </span>
    <b>{{ title }}</b>
    <span v-if="says" class="quiet">{{ says }}</span>
  </button>
</template>

<style scoped>
b {
  font: 700 1.18rem/1.3 var(--kettle-display);
  text-wrap: pretty;
}
.heats {
  display: flex;
  gap: 10px;
}
</style>
