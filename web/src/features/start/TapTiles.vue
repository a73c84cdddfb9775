<script setup lang="ts">
import { computed } from 'vue'
import { duration } from '@/shared/format/time'
import CutPicture from '@/shared/ui/CutPicture.vue'
import HeatPicture from '@/shared/ui/HeatPicture.vue'
import OwnTile from './OwnTile.vue'
import ThicknessPicture from './ThicknessPicture.vue'
import { pictureOf, type Tap } from './taps'

const props = defineProps<{
  tap: Tap
  told?: string
  /** From the first act to the plate by option [s]; null where it never gets there. */
  hours: Record<string, number | null>
  timed: boolean
  round: boolean
  busy: boolean
}>()
const emit = defineEmits<{ pick: [key: string] }>()
const most = computed(() => Math.max(...props.tap.options.map((one) => one.mm ?? 0)))
const pick = (key: string) => !props.busy && emit('pick', key)
const takes = (key: string) =>
  key in props.hours
    ? props.hours[key] === null
      ? 'never gets there'
      : duration(props.hours[key]!)
    : '…'
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
      :class="{ told: option.key === told }"
      :aria-pressed="option.key === told"
      :data-test="`tap-${tap.key}-${option.key || 'none'}`"
      @click="pick(option.key)"
    >
      <em v-if="option.usual">usual</em>
      <CutPicture v-if="option.cut" :cut="option.cut" :size="96" />
      <HeatPicture v-if="option.heat" :heat="pictureOf(tap.key, option.heat)" :size="64" />
      <ThicknessPicture v-if="option.mm" :mm="option.mm" :most="most" :round="round" />
      <i
        v-if="tap.key === 'sauce'"
        :class="{ unknown: !option.swatch }"
        :style="option.swatch ? { background: option.swatch } : undefined"
      />
      <b>{{ option.text }}</b>
      <span v-if="timed && option.heat" class="figure hours">{{ takes(option.key) }}</span>
      <small v-if="option.hint">{{ option.hint }}</small>
    </button>
    <OwnTile v-if="tap.own" :key="tap.key" :own="tap.own" :told="told" @pick="pick" />
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
  position: relative;
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
button.told {
  border-color: var(--kettle-enamel);
}
em {
  position: absolute;
  top: 10px;
  right: 14px;
  font: 700 0.9rem var(--kettle-text);
  color: var(--kettle-ink-soft);
}
b {
  font: 700 1.35rem/1.2 var(--kettle-display);
}
.hours {
  font: 700 1.2rem var(--kettle-text);
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
i.unknown {
  border: 2px dotted var(--kettle-ink-soft);
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
