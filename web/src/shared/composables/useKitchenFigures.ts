import { shallowRef } from 'vue'
import { api, ask, type Dish, type Kitchen } from '@/api/client'
import { useUnits } from './useUnits'

const known = shallowRef<Kitchen>()
let asked: Promise<void> | undefined

/** Units chosen on one device hold on a new one, until that one chooses for itself. */
function adopt(kitchen: Kitchen) {
  const { kitchen: measures, degrees } = useUnits()
  if (known.value === undefined && localStorage.getItem('kettle-units') === null)
    measures.value = kitchen.settings.measures ?? 'metric'
  if (known.value === undefined && localStorage.getItem('kettle-degrees') === null)
    degrees.value = kitchen.settings.temperature ?? 'C'
  known.value = kitchen
}

/** What is kept of this kitchen. Asked once, and again after a change. */
export function useKitchenFigures() {
  async function load(again = false) {
    if (again) asked = undefined
    asked ??= ask(() => api.GET('/api/v1/kitchen')).then(({ data }) => {
      if (data) adopt(data)
      else asked = undefined
    })
    await asked
  }

  /** The dish in this kitchen: figures that are kept fill what the dish itself leaves open. */
  function inKitchen(dish: Dish): Dish {
    const kitchen = known.value
    if (!kitchen) return dish
    const own = Object.fromEntries(
      Object.entries(dish.kitchen ?? {}).filter(
        ([, value]) => value !== null && value !== undefined,
      ),
    )
    const gear = kitchen.settings.gear?.length ? kitchen.settings.gear : null
    return {
      ...dish,
      kitchen: {
        ...kitchen.figures,
        gear,
        learnt: kitchen.learnt,
        machines: kitchen.machines,
        ...own,
      } as Dish['kitchen'],
    }
  }

  return { known, load, inKitchen }
}
