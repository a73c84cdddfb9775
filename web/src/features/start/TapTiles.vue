<script setup lang="ts">
import CutPicture from '@/shared/ui/CutPicture.vue'
import HeatPicture from '@/shared/ui/HeatPicture.vue'
import type { Tap } from './taps'

defineProps<{ tap: Tap }>()
defineEmits<{ pick: [key: string] }>()
</script>

<template>
  <div
    class="tiles"
    :class="{ pictures: tap.key === 'cut', thirds: tap.options.length > 6 && tap.key !== 'cut' }"
  >
    <button
      v-for="option in tap.options"
      :key="option.key"
      type="button"
      :data-test="`tap-${tap.key}-${option.key || 'none'}`"
      @click="$emit('pick', option.key)"
    >
      <CutPicture v-if="option.cut" :cut="option.cut" :size="96" />
      <HeatPicture v-if="option.heat" :heat="option.heat" :size="64" />
      <i v-if="option.swatch" :style="{ background: option.swatch }" />
      <b>{{ option.text }}</b>
      <small v-if="option.hint">{{ option.hint }}</small>
    </button>
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 16px;
}
.tiles.thirds {
  grid-template-columns: repeat(3, 1fr);
}
.tiles.pictures {
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  gap: 10px;
}
button {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 6px;
  min-height: 148px;
  padding: 14px;
  border-radius: 20px;
  cursor: pointer;
  background: var(--kettle-sheet);
  border: 2px solid var(--kettle-line);
  color: var(--kettle-ink);
  font-size: 1.1rem;
}
button:hover {
  border-color: var(--kettle-ember);
  background: var(--kettle-ember-soft);
}
b {
  font: 700 1.35rem/1.2 var(--kettle-display);
}
.pictures b {
  font-size: 1.08rem;
}
small {
  color: var(--kettle-ink-soft);
  font-size: 1rem;
}
i {
  width: 44px;
  height: 44px;
  border-radius: 50% 50% 50% 0;
  transform: rotate(135deg);
  margin: 6px;
}
@media (max-width: 640px) {
  .tiles {
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  .tiles.pictures,
  .tiles.thirds {
    grid-template-columns: 1fr 1fr;
  }
  button {
    min-height: 116px;
    padding: 10px;
  }
  b {
    font-size: 1.12rem;
  }
}
</style>
