<script setup lang="ts">
import { computed, ref } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { Appliance } from '@/api/client'
import { shelf } from './drawing'

/** Every appliance by its inside, all at one scale: what fits where is seen before it is asked. */
const props = defineProps<{ appliances: Appliance[]; chosen: number | null }>()
defineEmits<{ choose: [id: number] }>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const scale = computed(() => {
  const whole = shelf(props.appliances, 0.3).width
  return 0.3 * Math.min(1.15, Math.max(0.55, (width.value - 8) / whole))
})
const found = computed(() => shelf(props.appliances, scale.value))
const one = (id: number) => props.appliances.find((a) => a.id === id)!
</script>

<template>
  <div ref="box" class="shelf">
    <ul :style="{ minHeight: `${found.height + 84}px` }">
      <li v-for="d in found.drawn" :key="d.id">
        <button
          type="button"
          :class="{ on: d.id === chosen, idle: !one(d.id).given.in_use }"
          :aria-current="d.id === chosen"
          :data-test="`appliance-${d.id}`"
          @click="$emit('choose', d.id)"
        >
          <svg :width="d.width + 8" :height="found.height + 12" aria-hidden="true">
            <g :transform="`translate(4 ${found.height - d.height + 6})`">
              <path
                v-if="d.round"
                class="wall"
                :d="`M0 0 v${d.height - 10} q0 10 10 10 h${d.width - 20} q10 0 10 -10 v${-(d.height - 10)}`"
              />
              <rect
                v-else
                class="wall"
                :width="d.width"
                :height="d.height"
                rx="4"
                :class="{ guess: !d.sized }"
              />
              <line
                v-for="r in d.racks"
                :key="r"
                class="rack"
                x1="3"
                :x2="d.width - 3"
                :y1="r"
                :y2="r"
              />
              <path
                v-if="one(d.id).type === 'broiler' || one(d.id).type === 'crisping_lid'"
                class="element"
                :d="`M6 5 ${'l6 5 l6 -5 '.repeat(Math.max(1, Math.floor((d.width - 12) / 12)))}`"
              />
              <path
                v-if="['grill', 'charcoal'].includes(one(d.id).type) || one(d.id).type === 'burner'"
                class="element"
                :d="`M6 ${d.height - 5} ${'l6 -5 l6 5 '.repeat(Math.max(1, Math.floor((d.width - 12) / 12)))}`"
              />
            </g>
          </svg>
          <span class="name"
            >{{ d.name }}<small>{{ one(d.id).kind_name }}</small></span
          >
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.shelf {
  border-bottom: 8px solid var(--kettle-enamel);
  overflow-x: auto;
}
ul {
  list-style: none;
  display: flex;
  gap: 10px 22px;
  margin: 0;
  padding: 0;
  align-items: end;
}
button {
  display: grid;
  justify-items: center;
  gap: 6px;
  border: 0;
  background: transparent;
  color: var(--kettle-ink);
  cursor: pointer;
  padding: 6px 8px 10px;
  border-radius: 12px 12px 0 0;
  min-width: 104px;
}
button:hover {
  background: var(--kettle-ember-soft);
}
.on {
  background: var(--kettle-ember-soft);
  box-shadow: inset 0 -5px 0 var(--kettle-ember);
}
.name {
  font-weight: 700;
  font-size: 1rem;
  line-height: 1.2;
  max-width: 150px;
  min-height: 62px;
}
small {
  display: block;
  font-weight: 400;
  color: var(--kettle-ink-soft);
}
.wall {
  fill: var(--kettle-sheet);
  stroke: var(--kettle-enamel-soft);
  stroke-width: 3;
}
.wall.guess {
  stroke-dasharray: 5 5;
}
.rack {
  stroke: var(--kettle-enamel-soft);
  stroke-width: 2;
}
.element {
  fill: none;
  stroke: var(--kettle-ember);
  stroke-width: 3;
}
.idle {
  opacity: 0.55;
}
</style>
