<script setup lang="ts">
import type { Chain, Template } from '@/api/client'
import HeatPicture from '@/shared/ui/HeatPicture.vue'

defineProps<{ templates: Template[] }>()
defineEmits<{ pick: [Chain] }>()

// The drawing of each heat is that of its slow or its fierce model.
const DRAWN: Record<string, string> = {
  slow_cooker: 'slow',
  smoker: 'smoke',
  oven: 'low_oven',
  air_fryer: 'air_fry',
}

/** The heats of a chain in order, each once in a row. */
function heats(chain: Chain): string[] {
  const found: string[] = []
  const walk = (stages: Chain['stages']) => {
    for (const stage of stages) {
      if (stage.kind === 'heat') found.push(DRAWN[stage.heat] ?? stage.heat)
      if (stage.kind === 'rounds') walk(stage.stages as Chain['stages'])
      if (stage.kind === 'split')
        stage.shares.forEach((share) => walk(share.stages as Chain['stages']))
    }
  }
  walk(chain.stages)
  return found.filter((heat, i) => heat !== found[i - 1])
}
</script>

<template>
  <ul class="shelf">
    <li v-for="t in templates" :key="t.key">
      <button
        type="button"
        :data-test="`template-${t.key}`"
        @click="$emit('pick', t.document as Chain)"
      >
        <span class="heats" aria-hidden="true">
          <HeatPicture
            v-for="(heat, i) in heats(t.document as Chain)"
            :key="i"
            :heat="heat"
            :size="44"
          />
        </span>
        <b>{{ t.document.name }}</b>
        <span v-if="t.hint" class="quiet">{{ t.hint }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.shelf {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr));
  gap: 14px;
}
button {
  width: 100%;
  height: 100%;
  min-height: 132px;
  display: grid;
  gap: 6px;
  align-content: start;
  text-align: left;
  padding: 14px 18px 16px;
  border: 2px solid var(--kettle-line);
  border-radius: 14px;
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  font: inherit;
  cursor: pointer;
}
button:hover {
  border-color: var(--kettle-ember);
}
b {
  font: 700 1.18rem/1.3 var(--kettle-display);
  text-wrap: pretty;
}
.heats {
  display: flex;
  gap: 10px;
}
</style>
