import { defineComponent } from 'vue'
import { afterEach, expect, it, vi } from 'vitest'
import { flushPromises } from '@vue/test-utils'
import { kitchen, serve, show } from '@/__tests__/kitchen'
import type { Chain } from '@/api/client'
import { useKitchenFigures } from './useKitchenFigures'

afterEach(() => vi.unstubAllGlobals())

const belief = (heat: number) => ({
  mean: [heat, 0, 0, 0],
  cov: Array<number>(16).fill(0),
  seen: 2,
})

it('puts into a plan what the kitchen knows and the plan does not say itself', async () => {
  const forPlans = {
    rack_m: 0.14,
    gear: ['thermometer'],
    learnt: { broiler: belief(0.3), grill: belief(0.1) },
    machines: { broiler: { name: 'its broiler' } },
  }
  serve({ 'GET /kitchen': [200, { ...kitchen, for_plans: forPlans }] })
  let put!: ReturnType<typeof useKitchenFigures>['inKitchen']
  const Part = defineComponent({
    setup() {
      put = useKitchenFigures().inKitchen
      return () => null
    },
  })
  await show(Part)
  await flushPromises()
  // As a kept plan has it: nothing of its own, in words.
  const kept = {
    kitchen: { rack_m: null, gear: null, learnt: {}, machines: {} } as Chain['kitchen'],
  }
  expect(put(kept).kitchen).toEqual(forPlans)
  const own = { rack_m: 0.2, learnt: { grill: belief(0.5) }, machines: {} } as Chain['kitchen']
  expect(put({ kitchen: own }).kitchen).toEqual({
    ...forPlans,
    rack_m: 0.2,
    learnt: { broiler: belief(0.3), grill: belief(0.5) },
  })
})
