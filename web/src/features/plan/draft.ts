import { defineStore } from 'pinia'
import { ref } from 'vue'
import { useStorage } from '@vueuse/core'
import type { Cut, Dish } from '@/api/client'

const json = {
  read: (text: string) => JSON.parse(text) as Dish | null,
  write: (value: Dish | null) => JSON.stringify(value),
}

/** The dish being planned. It outlives the page, the tab and the server. */
export const useDraft = defineStore('draft', () => {
  const dish = useStorage<Dish | null>('kettle-draft', null, localStorage, { serializer: json })
  const planId = useStorage<number | null>('kettle-plan', null, localStorage, {
    serializer: { read: Number, write: String },
  })

  const planVersion = useStorage<number | null>('kettle-plan-version', null, localStorage, {
    serializer: { read: Number, write: String },
  })

  const sitting = ref(0)

  /** Begin anew with a dish, and the plan that it is kept as. */
  function begin(next: Dish, id: number | null = null, version: number | null = null) {
    sitting.value += 1
    dish.value = next
    planId.value = id
    planVersion.value = version
  }

  /** Change fields; the sauce and its coats, and a cut and its bite, are kept in step. */
  function change(fields: Partial<Dish>, cut?: Cut) {
    if (!dish.value) return
    const next = { ...dish.value, ...fields }
    // One figure of the kitchen leaves the others as they are.
    if ('kitchen' in fields)
      next.kitchen = { ...dish.value.kitchen, ...fields.kitchen } as Dish['kitchen']
    if ('sauce' in fields) next.coats = fields.sauce ? dish.value.coats || 1 : 0
    // The minutes of the coats hold for that number of coats.
    if (next.coats !== dish.value.coats && !('coats_min' in fields)) next.coats_min = null
    if (cut) Object.assign(next, usual(cut))
    dish.value = next
  }

  return { dish, sitting, planId, planVersion, begin, change }
})

/** The usual mass, pieces, thickness and bite of a cut. */
export function usual(cut: Cut): Partial<Dish> {
  return {
    cut: cut.key,
    mass_kg: cut.mass_kg,
    pieces: cut.pieces,
    thickness_mm: cut.thickness_mm,
    bite: cut.default_bite as Dish['bite'],
    release: null,
    timer_min: null,
  }
}
