import { onMounted, onUnmounted } from 'vue'
import { useEventListener, useWakeLock } from '@vueuse/core'
import NoSleep from 'nosleep.js'

/** Keep the screen on while the stove is looked at. A browser locks it only for pages of a secure
 * address; elsewhere a silent film does, which it lets play only after a tap. */
export function useAwake(): void {
  const lock = useWakeLock()
  let film: NoSleep | undefined
  onMounted(() => {
    if (lock.isSupported.value) void lock.request('screen').catch(() => undefined)
    else film = new NoSleep()
  })
  const play = () => void film?.enable().catch(() => undefined) // at the next tap again
  useEventListener(window, ['pointerdown', 'keydown'], play)
  // A browser stops the film of a page that is put away.
  useEventListener(
    document,
    'visibilitychange',
    () => film?.isEnabled && !document.hidden && play(),
  )
  onUnmounted(() => film?.disable())
}
