<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useDark, useToggle } from '@vueuse/core'
import { useUnits } from '@/shared/composables/useUnits'
import KettleMark from '@/shared/ui/KettleMark.vue'

defineEmits<{ shortcuts: [] }>()
const route = useRoute()
const dark = useDark({ storageKey: 'kettle-theme' })
const toggleDark = useToggle(dark)
const { kitchen, degrees } = useUnits()
const rooms = [
  { to: '/plan', name: 'Plan' },
  { to: '/meal', name: 'Meal' },
  { to: '/stove', name: 'Stove' },
  { to: '/log', name: 'Log' },
  { to: '/sauces', name: 'Sauces' },
  { to: '/kitchen', name: 'Kitchen' },
]
</script>

<template>
  <header class="bar no-print">
    <RouterLink to="/" class="mark" aria-label="Blue Kettle, what is next">
      <KettleMark /><span>Blue Kettle</span>
    </RouterLink>
    <nav class="rooms" aria-label="Rooms">
      <RouterLink
        v-for="room in rooms"
        :key="room.to"
        :to="room.to"
        :class="{ here: route.path.startsWith(room.to) }"
        >{{ room.name }}</RouterLink
      >
    </nav>
    <div class="settings">
      <button
        type="button"
        :aria-label="`${kitchen === 'metric' ? 'kg' : 'lb'}: change the unit of weight`"
        @click="kitchen = kitchen === 'metric' ? 'us' : 'metric'"
      >
        {{ kitchen === 'metric' ? 'kg' : 'lb' }}
      </button>
      <button
        type="button"
        :aria-label="`°${degrees}: change the unit of temperature`"
        @click="degrees = degrees === 'C' ? 'F' : 'C'"
      >
        °{{ degrees }}
      </button>
      <button
        type="button"
        :aria-label="dark ? 'Light theme' : 'Dark stove theme'"
        @click="toggleDark()"
      >
        <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
          <circle v-if="dark" cx="10" cy="10" r="5" fill="currentColor" />
          <path v-else d="M13 3a7.500 7.500 0 1 0 4 10A6 6 0 0 1 13 3z" fill="currentColor" />
        </svg>
      </button>
      <button type="button" class="keys" aria-label="? Keys" @click="$emit('shortcuts')">?</button>
    </div>
  </header>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 20;
  display: flex;
  align-items: center;
  gap: 28px;
  background: var(--kettle-enamel);
  color: #f6f2e7;
  padding: 0 24px;
  min-height: 56px;
}
.mark {
  display: flex;
  align-items: center;
  gap: 10px;
  color: inherit;
  text-decoration: none;
  font: 700 1.2rem var(--kettle-display);
  min-width: 44px;
  min-height: 44px;
}
.rooms {
  display: flex;
  gap: 6px;
  flex: 1;
}
.rooms a {
  color: #dfe6ee;
  text-decoration: none;
  padding: 14px 16px;
  border-bottom: 4px solid transparent;
  font-size: 1.05rem;
}
.rooms a.here {
  color: #fff;
  border-bottom-color: #f08a4b;
  font-weight: 700;
}
.settings {
  display: flex;
  gap: 4px;
}
.settings button {
  min-width: 44px;
  height: 44px;
  border: 0;
  border-radius: 10px;
  background: transparent;
  color: inherit;
  font-size: 1rem;
  cursor: pointer;
  display: inline-flex;
  align-items: center;
  justify-content: center;
}
.settings button:hover {
  background: rgb(255 255 255 / 12%);
}
@media (max-width: 640px) {
  .bar {
    gap: 8px;
    padding: 0 8px 0 12px;
  }
  .mark span,
  .keys {
    display: none !important;
  }
  .rooms {
    position: fixed;
    left: 0;
    right: 0;
    bottom: 0;
    background: var(--kettle-enamel);
    justify-content: space-around;
    z-index: 30;
  }
  .rooms a {
    flex: 1;
    text-align: center;
    padding: 16px 0 14px;
    font-size: 0.94rem;
    border-bottom: 0;
    border-top: 4px solid transparent;
  }
  .rooms a.here {
    border-top-color: #f08a4b;
  }
  .settings {
    margin-left: auto;
  }
}
</style>
