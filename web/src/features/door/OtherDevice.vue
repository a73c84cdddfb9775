<script setup lang="ts">
/** How a phone comes to the same stove: a code to scan, or what to start the kettle with. */
import { computed } from 'vue'
import { useDoor } from './useDoor'

const { door } = useDoor()
const picture = computed(
  () => `data:image/svg+xml,${encodeURIComponent(door.value?.code_svg ?? '')}`,
)
</script>

<template>
  <section v-if="door" class="other" aria-label="Another device" data-test="other-device">
    <h2>Another device</h2>
    <template v-if="door.address">
      <img
        :src="picture"
        width="190"
        height="190"
        alt="a code to scan, with which a device joins"
      />
      <p>
        Scan it with a phone in the same network, or open <b>{{ door.address }}</b> there and type
        the passcode. Both then show the same stove.
      </p>
    </template>
    <p v-else>
      This kettle answers this machine alone. For a phone beside the pan, start it with
      <code>kettle serve --host 0.0.0.0 --passcode "…"</code> (eight characters or more).
    </p>
  </section>
</template>

<style scoped>
.other {
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 640px;
  margin-top: 32px;
}
p {
  margin: 0;
}
img {
  background: white;
  border-radius: 14px;
}
code {
  font-size: 0.95em;
}
</style>
