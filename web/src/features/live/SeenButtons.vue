<script setup lang="ts">
import { computed } from 'vue'
import type { EventBody, Glaze, Live } from '@/api/client'

const props = defineProps<{ cook: Live; bare?: boolean; glaze?: Glaze }>()
defineEmits<{ saw: [sign: EventBody['sign']] }>()
const signs = computed<{ sign: EventBody['sign']; text: string; colour?: string }[]>(() => [
  { sign: 'nothing yet', text: 'nothing yet', colour: colourAt('face', 0) },
  { sign: 'bubbling', text: 'bubbling', colour: colourOf('face', 'bubbling') },
  {
    sign: 'amber at the edges',
    text: props.bare ? 'browned edges' : 'amber edges',
    colour: colourOf('edge', 'amber'),
  },
  { sign: 'dark', text: 'dark', colour: colourOf('face', 'mahogany') },
])
const last = () => props.cook.signs.at(-1)?.sign

/** The colour of tonight's own glaze when it comes to a milestone, none where it never does. */
function colourOf(site: 'face' | 'edge', milestone: string): string | undefined {
  const at = props.glaze?.milestones[site]?.[milestone]?.likely_s
  return at == null ? undefined : colourAt(site, at)
}
function colourAt(site: 'face' | 'edge', at: number): string | undefined {
  if (!props.glaze) return undefined
  const place = props.glaze.sample_s.findIndex((t) => t >= at)
  return props.glaze[site][place]
}
</script>

<template>
  <div class="seen" role="group" aria-label="I see">
    <span>I see</span>
    <el-button
      v-for="s in signs"
      :key="s.text"
      class="plain-button"
      :class="{ told: last() === s.sign }"
      :data-test="`saw-${s.sign}`"
      @click="$emit('saw', s.sign)"
    >
      <i v-if="s.colour" class="swatch" :style="{ background: s.colour }" aria-hidden="true" />
      {{ s.text }}
    </el-button>
  </div>
</template>

<style scoped>
.seen {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(132px, 1fr));
  gap: 10px;
  align-items: center;
  font-weight: 700;
}
.seen > span {
  grid-column: 1 / -1;
}
.plain-button {
  min-height: 72px;
  font-size: 1.12rem;
  font-weight: 700;
  padding: 6px;
}
.swatch {
  display: inline-block;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 2px solid currentcolor;
  vertical-align: -5px;
  margin-right: 6px;
}
.told {
  border-style: double;
  border-width: 5px;
}
@media (max-width: 640px) {
  .seen {
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  .plain-button {
    min-height: 56px;
  }
}
</style>
