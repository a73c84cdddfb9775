<script setup lang="ts">
import type { CookSummary } from '@/api/client'
import { duration } from '@/shared/format/time'
import PastStrip from './PastStrip.vue'
import { outcomeWords, whenWords } from './words'

/** One cook in the list: what, its strip, how long, and how it was. */
defineProps<{ cook: CookSummary }>()
defineEmits<{ drop: [] }>()
</script>

<template>
  <li>
    <RouterLink
      :to="cook.ended_at ? `/log/${cook.id}` : `/stove/${cook.id}`"
      :data-test="`cook-${cook.id}`"
    >
      <span class="what">
        <b>{{ cook.title }}</b>
        <small>{{ whenWords(cook) }}</small>
      </span>
      <PastStrip v-if="cook.strip" :strip="cook.strip" :live="!cook.ended_at" />
      <small v-else>nothing to brown</small>
      <span class="times figure">
        <b v-if="cook.actual_s != null">{{ duration(cook.actual_s) }}</b>
        <b v-else-if="cook.ended_at">not known</b>
        <small>planned {{ duration(cook.planned_s) }}</small>
      </span>
      <span class="how">
        {{ outcomeWords(cook) }}
        <small v-if="cook.unknown_steps">
          {{ cook.unknown_steps }} step{{ cook.unknown_steps === 1 ? '' : 's' }} nobody confirmed
        </small>
      </span>
    </RouterLink>
    <el-button
      v-if="cook.ended_at"
      text
      class="drop no-print"
      :aria-label="`Delete “${cook.title}”`"
      :data-test="`drop-${cook.id}`"
      @click="$emit('drop')"
    >
      Delete
    </el-button>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 92px;
  gap: 8px;
  align-items: center;
  border-bottom: 1px solid var(--kettle-line);
}
a {
  display: grid;
  grid-template-columns: 1.2fr 1.6fr 140px 1fr;
  gap: 24px;
  align-items: center;
  padding: 16px 4px;
  color: inherit;
  text-decoration: none;
}
a:hover {
  background: var(--kettle-ember-soft);
}
.what b {
  font: 700 1.12rem/1.25 var(--kettle-display);
  display: block;
}
small {
  display: block;
  color: var(--kettle-ink-soft);
  font-size: 0.95rem;
}
.times b {
  font: 700 1.3rem var(--kettle-display);
}
.drop {
  min-height: 44px;
  color: var(--kettle-ink-soft);
}
@media (max-width: 860px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 6px;
  }
  a {
    grid-template-columns: 1fr 1fr;
    gap: 8px 16px;
    padding-bottom: 4px;
  }
  .what,
  .strip {
    grid-column: 1 / -1;
  }
  .drop {
    justify-self: start;
    padding-left: 4px;
  }
}
</style>
