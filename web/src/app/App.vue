<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useEventListener } from '@vueuse/core'
import en from 'element-plus/es/locale/lang/en'
import { JoinPage, useDoor } from '@/features/door'
import { CallScreen, LiveBar, mainClock, useLive } from '@/features/live'
import TopBar from './TopBar.vue'
import ShortcutList from './ShortcutList.vue'
import { isTyping, stopRepeats } from '@/shared/composables/keys'

// Weeks begin on a Monday, as the times of this kitchen are said.
const english = { ...en, name: 'en-gb' }
const router = useRouter()
const route = useRoute()
const live = useLive()
const shortcuts = ref(false)
const rooms: Record<string, string> = {
  p: '/plan',
  m: '/meal',
  s: '/stove',
  l: '/log',
  g: '/sauces',
  k: '/kitchen',
  h: '/',
}
const { locked, problem: shut, join, begin } = useDoor()
onMounted(() => {
  void begin()
  void live.watch()
})

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  live.sound.arm()
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || event.repeat) return
  if (live.call) return
  if (event.key === '?') shortcuts.value = !shortcuts.value
  else if (rooms[event.key]) void router.push(rooms[event.key]!)
})
useEventListener(window, 'keydown', stopRepeats, { capture: true })
useEventListener(window, 'pointerdown', () => live.sound.arm())

/** Where the button that led here is gone with its room, the keys go on in the next one. */
watch(
  () => route.name,
  async (_, before) => {
    await nextTick()
    if (before && document.activeElement === document.body)
      document.getElementById('main')?.focus({ preventScroll: true })
  },
)

/** The tab's title counts: "4:12 Under pressure", or the call itself. */
const count = computed(() => {
  const cook = live.call ? live.cookOf(live.call.cook) : live.underWay[0]
  if (!cook) return ''
  const step = cook.steps.find((s) => s.key === cook.current)
  const says = live.call?.alarm.says ?? step?.label ?? 'How was it?'
  return `${mainClock(cook, step, live.now)} ${says}`
})
watchEffect(() => {
  const room = `${String(route.meta.title ?? '')} · Blue Kettle`
  document.title = count.value ? `${count.value} · ${room}` : room
})
</script>

<template>
  <a class="visually-hidden" href="#main">To the content</a>
  <TopBar @shortcuts="shortcuts = true" />
  <LiveBar v-if="!locked" />
  <el-config-provider :locale="english">
    <main id="main" tabindex="-1">
      <JoinPage v-if="locked" :problem="shut" @join="join" />
      <RouterView v-else />
    </main>
    <ShortcutList v-model="shortcuts" />
    <CallScreen v-if="!locked" />
  </el-config-provider>
</template>
