import { shallowRef } from 'vue'
import { useIntervalFn } from '@vueuse/core'

/** The present moment, told anew every so many milliseconds; right again at once after sleep. */
export function useClock(everyMs: number) {
  const now = shallowRef(new Date())
  useIntervalFn(() => (now.value = new Date()), everyMs)
  return now
}
