import { shallowRef } from 'vue'
import { api, ask, type Dish, type Kitchen } from '@/api/client'

const known = shallowRef<Kitchen>()
let asked: Promise<void> | undefined

/** What is kept of this kitchen. Asked once, and again after a change. */
export function useKitchenFigures() {
  async function load(again = false) {
    if (again) asked = undefined
    asked ??= ask(() => api.GET('/api/v1/kitchen')).then(({ data }) => {
      if (data) known.value = data
      else asked = undefined
    })
    await asked
  }

  /** The dish in this kitchen: figures that are kept fill what the dish itself leaves open. */
  function inKitchen(dish: Dish): Dish {
    const kitchen = known.value
    if (!kitchen) return dish
    const own = Object.fromEntries(Object.entries(dish.kitchen ?? {}).filter(([, value]) => value !== null && value !== undefined))
    return { ...dish, kitchen: { ...kitchen.figures, learnt: kitchen.learnt, machines: kitchen.machines, ...own } as Dish['kitchen'] }
  }

  return { known, load, inKitchen }
}
