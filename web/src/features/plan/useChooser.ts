import { ref } from 'vue'
import type { PartName } from './sentence'

/** The part of the sentence whose chooser is open: one at a time. */
const open = ref<PartName | ''>('')

export function useChooser() {
  return {
    open,
    close: () => (open.value = ''),
  }
}
