<script setup lang="ts">
/** Patterns that say the colour words without colour: dots, strokes, crosses, solid. */
defineProps<{ id: string }>()
const dark = 'rgb(0 0 0 / 34%)'
const light = 'rgb(255 255 255 / 34%)'
</script>

<template>
  <defs>
    <pattern :id="`${id}-p-raw`" width="8" height="8" patternUnits="userSpaceOnUse" />
    <pattern :id="`${id}-p-amber`" width="9" height="9" patternUnits="userSpaceOnUse">
      <circle cx="4.5" cy="4.5" r="1.2" :fill="dark" />
    </pattern>
    <pattern
      :id="`${id}-p-mahogany`"
      width="9"
      height="9"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width="1.6" height="9" :fill="light" />
    </pattern>
    <pattern
      :id="`${id}-p-bitter`"
      width="9"
      height="9"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width="1.6" height="9" :fill="light" /><rect width="9" height="1.6" :fill="light" />
    </pattern>
    <pattern
      :id="`${id}-p-burnt`"
      width="5"
      height="5"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width="1.800" height="5" :fill="light" /><rect width="5" height="1.800" :fill="light" />
    </pattern>
  </defs>
</template>
