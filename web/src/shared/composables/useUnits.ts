import { useStorage } from '@vueuse/core'

export type KitchenUnits = 'metric' | 'us'
export type Degrees = 'C' | 'F'

const kitchen = useStorage<KitchenUnits>('kettle-units', 'metric', localStorage, {
  writeDefaults: false,
})
const degrees = useStorage<Degrees>('kettle-degrees', 'C', localStorage, { writeDefaults: false })

/** How this cook likes weights and temperatures, remembered. */
export function useUnits() {
  return { kitchen, degrees }
}
