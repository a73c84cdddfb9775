<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useEventListener } from '@vueuse/core'
import TopBar from './TopBar.vue'
import ShortcutList from './ShortcutList.vue'
import { isTyping } from '@/shared/composables/keys'

const router = useRouter()
const shortcuts = ref(false)
const rooms: Record<string, string> = {
  p: '/plan',
  s: '/stove',
  l: '/log',
  g: '/sauces',
  k: '/kitchen',
  h: '/',
}

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === '?') shortcuts.value = !shortcuts.value
  else if (rooms[event.key]) void router.push(rooms[event.key])
})
</script>

<template>
  <a class="visually-hidden" href="#main">To the content</a>
  <TopBar @shortcuts="shortcuts = true" />
  <main id="main">
    <RouterView />
  </main>
  <ShortcutList v-model="shortcuts" />
</template>
