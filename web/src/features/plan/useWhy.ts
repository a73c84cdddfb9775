import { ref, shallowRef, watch } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import {
  api,
  ask,
  type Advice,
  type Dish,
  type Explorer,
  type Glaze,
  type Problem,
} from '@/api/client'

/** The map, the advice and a second strip beside the first, asked when the panel is open and the dish changes. */
export function useWhy(dish: () => Dish, sides: (finish: string) => number) {
  const explorer = shallowRef<Explorer>()
  const advice = shallowRef<Advice>()
  const beside = shallowRef<Glaze>()
  const besideKey = ref('')
  const problem = ref<Problem>()
  const waiting = ref(false)
  let latest = 0

  async function refresh() {
    const turn = ++latest
    waiting.value = true
    const map = await ask(() => api.POST('/api/v1/explorer', { body: dish() }))
    if (turn !== latest) return
    problem.value = map.problem
    if (map.data) explorer.value = map.data
    await compare()
    const found = await ask(() => api.POST('/api/v1/advice', { body: dish() }))
    if (turn !== latest) return
    waiting.value = false
    if (found.data) advice.value = found.data
  }

  /** The same food with another sauce or appliance: "sauce:plum-tea" or "finish:air_fryer". */
  async function compare() {
    const [field, value] = besideKey.value.split(':')
    if (!field || !value) {
      beside.value = undefined
      return
    }
    const other: Dish = { ...dish(), [field]: value, serve_at: null }
    if (field === 'sauce') other.coats = dish().coats || 1
    if (field === 'finish' && sides(value) > 1) other.flips_min = []
    const { data } = await ask(() => api.POST('/api/v1/forecasts', { body: other }))
    if (data) beside.value = data.glaze
  }

  const soon = useDebounceFn(refresh, 250)
  watch(dish, () => void soon(), { deep: true, immediate: true })
  watch(besideKey, () => void compare())
  return { explorer, advice, beside, besideKey, problem, waiting }
}
