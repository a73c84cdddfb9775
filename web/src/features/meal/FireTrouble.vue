<script setup lang="ts">
/** What does not come out, where it is: food that waits past its limit, on its own ribbon; and when
 * two want the same, along the hours. */
import { computed } from 'vue'
import type { Schedule } from '@/api/client'
import { minute, type FireLine } from './fireLine'
import { told } from './words'

const props = defineProps<{ plan: Schedule; drawn: FireLine; x: (at: number) => number }>()
const LEAST = 6
const past = computed(() =>
  props.plan.past.flatMap((one) =>
    (one.spans ?? []).flatMap((span) => {
      const [from, to] = [minute(span.start_at), minute(span.end_at)]
      const own = props.drawn.ribbons.find((ribbon) => ribbon.id === span.line)?.pieces ?? []
      return own
        .filter((piece) => piece.from < to && piece.to > from)
        .map((piece) => ({
          from: Math.max(from, piece.from),
          to: Math.min(to, piece.to),
          y: piece.y,
          says: told(one.says),
        }))
    }),
  ),
)
/** The longest of each reason, which is the one that is told. */
const clashes = computed(() =>
  props.plan.reasons.flatMap((one) =>
    (one.spans ?? []).slice(0, 1).flatMap((span) => {
      const from = Math.max(minute(span.start_at), props.drawn.from)
      const to = Math.min(minute(span.end_at), props.drawn.to)
      return to > from ? [{ from, to, says: told(one.says) }] : []
    }),
  ),
)
interface Stretch {
  from: number
  to: number
  says: string
}
const drawnAs = (kind: string, n: number, { from, to, says }: Stretch, y: number) => ({
  key: `${kind} ${n}`,
  kind,
  says,
  d: `M${props.x(from)} ${y} H${Math.max(props.x(from) + LEAST, props.x(to))}`,
})
const marks = computed(() => [
  ...clashes.value.map((one, n) => drawnAs('clash', n, one, 26 + 5 * n)),
  ...past.value.map((one, n) => drawnAs('past-limit', n, one, one.y)),
])
</script>

<template>
  <g>
    <path
      v-for="mark in marks"
      :key="mark.key"
      :d="mark.d"
      :class="mark.kind"
      :data-test="mark.kind"
    >
      <title>{{ mark.says }}</title>
    </path>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--kettle-past);
}
.clash {
  stroke-width: 4;
}
.past-limit {
  stroke-width: 13;
  stroke-dasharray: 4 4;
}
</style>
