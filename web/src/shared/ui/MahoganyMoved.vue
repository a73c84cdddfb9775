<script setup lang="ts">
import { stopwatch } from '@/shared/format/time'

/** What signs moved: when a bottled glaze is mahogany, without them and with them. */
type Band = { low_s: number | null; likely_s: number | null; high_s: number | null }
defineProps<{ before: Band; after: Band }>()
/** The model looks an hour ahead. */
const minutes = (s: number | null) => (s === null ? 'later than 60 min' : stopwatch(s))
</script>

<template>
  <p class="figure" role="status">
    A bottled sweet glaze was to be mahogany at {{ minutes(before.likely_s) }} ({{
      minutes(before.low_s)
    }}
    to {{ minutes(before.high_s) }}); now at <b>{{ minutes(after.likely_s) }}</b> ({{
      minutes(after.low_s)
    }}
    to {{ minutes(after.high_s) }}).
  </p>
</template>

<style scoped>
p {
  border-left: 6px solid var(--kettle-good);
  padding-left: 12px;
  margin: 0;
}
</style>
