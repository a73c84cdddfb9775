import { shallowRef, watch, type Ref } from 'vue'

/** What was last known, while something newer is asked for. */
export function useLast<T>(source: Ref<T | undefined>) {
  const last = shallowRef<T>()
  watch(source, (found) => found !== undefined && (last.value = found), { immediate: true })
  return last
}
