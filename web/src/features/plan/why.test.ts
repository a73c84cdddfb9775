import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Chain } from '@/api/client'
import { queries } from '@/app/queries'
import { choices, forecast, plan, serve } from '@/__tests__/kitchen'
import HeatMap from './HeatMap.vue'
import WhyFire from './WhyFire.vue'
import { useDraft } from './draft'
import { heatText, labels, nearest, runs, settable } from './explorer'
import { otherFire, putOn, sauceUsed } from './otherFire'

const grid = (rows: number) =>
  Array.from({ length: rows }, (_, r) =>
    Array.from({ length: 60 }, (_, c) => Math.min(5, Math.floor((c + (rows - r) / 4) / 12))),
  )
const explorer = {
  stage: 'broil',
  axis: 'rack_m',
  unit: 'm',
  heats: Array.from({ length: 40 }, (_, i) => 0.05 + (i * 0.3) / 39),
  times_s: Array.from({ length: 60 }, (_, i) => (i + 1) * 20),
  regions: ['wet', 'set', 'amber', 'mahogany', 'bitter', 'burnt'],
  colours: ['wet', 'set', 'amber', 'mahogany', 'bitter', 'burnt'].map((word) => ({
    word,
    colour: '#804020',
  })),
  face: grid(40),
  edge: grid(40),
  present: 0.15,
  pull_s: 400,
}
const setting = (heat: string, dial: number) => ({
  heat,
  dial,
  coats_min: null,
  flips_min: [],
  coats: 1,
  coat_mm: 0.3,
  width_s: 300,
  opens_s: 320,
  hit: 0.97,
  possible: 1,
  patch: [
    { op: 'add', path: '/stages/2/heat', value: heat },
    { op: 'add', path: '/stages/2/dial', value: dial },
    { op: 'add', path: '/stages/1/mm', value: 0.3 },
  ],
  reason: `At ${dial}: wider.`,
})
const advice = {
  stage: 'broil',
  now: setting('broiler', 0.2),
  choice: setting('air_fryer', 160),
  runners: [setting('air_fryer', 170)],
  none_safe: '',
  exits: [{ do: 'add a return leg', before_serving_s: 1800, why: '10 min back' }],
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())
const settle = async () => {
  await new Promise((done) => setTimeout(done, 320))
  await flushPromises()
}

describe('the map of heat', () => {
  it('draws stretches instead of cells, and loses none of them', () => {
    const found = runs(explorer.face)
    expect(found.length).toBeLessThan(40 * 7)
    expect(found.reduce((sum, r) => sum + r.to - r.from, 0)).toBe(40 * 60)
    expect(
      found.every((r) => explorer.face[r.row]!.slice(r.from, r.to).every((c) => c === r.region)),
    ).toBe(true)
    expect(labels(explorer.face, 5).map((l) => l.region)).toEqual([
      ...new Set(labels(explorer.face, 5).map((l) => l.region)),
    ])
  })
  it('speaks of heat as it is set', () => {
    expect([heatText({ axis: 'rack_m' }, 0.152), heatText({ axis: 'air_fryer_c' }, 198.7)]).toEqual(
      ['15 cm', '199 °C'],
    )
    expect([
      settable({ axis: 'rack_m' }, 0.1526),
      settable({ axis: 'air_fryer_c' }, 198.7),
    ]).toEqual([0.15, 200])
    expect(nearest(explorer.heats, 0.15)).toBe(13)
  })
  it('is a slider for the keyboard, fiercest on top', async () => {
    const map = mount(HeatMap, { props: { explorer, site: 'face', caramelises: true } })
    const cells = map.get("[data-test='heat-map']")
    expect(cells.attributes('aria-valuetext')).toBe('15 cm')
    await cells.trigger('keydown', { key: 'ArrowUp' })
    await cells.trigger('keydown', { key: 'ArrowDown' })
    const [[up], [down]] = map.emitted('pick') as [[number], [number]]
    expect(up).toBeLessThan(0.15)
    expect(down).toBeGreaterThan(0.15)
  })
})

function opened(chain: Chain) {
  return mount(WhyFire, {
    props: { fire: forecast.fires[0]!, chain, choices, held: false },
    global: { plugins: [[VueQueryPlugin, { queryClient: queries() }]] },
  })
}

describe('why this heat', () => {
  it('takes the advice by one tap, the map by another, and sets a strip beside the first', async () => {
    const asked = serve({
      'POST /explorer': [200, explorer],
      'POST /advice': [200, advice],
      'POST /forecasts': [200, forecast],
    })
    const draft = useDraft()
    draft.begin(plan())
    const panel = opened(draft.chain!)
    await settle()
    const map = asked.find((a) => a.path === '/explorer')
    expect(map).toMatchObject({ body: { stage: 'broil' } })
    expect(panel.text()).toContain('At 160: wider.')
    expect(panel.text()).toContain('30 min before serving: add a return leg')
    await panel.getComponent('[data-test="beside"]').setValue('heat:air_fryer')
    await flushPromises()
    const beside = asked.at(-1)!.body as Chain
    expect(beside.stages[2]).toMatchObject({ heat: 'air_fryer', dial: null })
    expect(panel.findAll('.strip')).toHaveLength(1)
    panel.getComponent(HeatMap).vm.$emit('pick', 0.2)
    expect(draft.chain!.stages[2]).toMatchObject({ id: 'broil', dial: 0.2 })
    await panel.get("[data-test='advice-0']").trigger('click')
    expect(draft.chain!.stages[2]).toMatchObject({ heat: 'air_fryer', dial: 160 })
    expect(draft.chain!.stages[1]).toMatchObject({ mm: 0.3 })
  })
  it('tells a refusal and says when nothing is safe', async () => {
    serve({
      'POST /explorer': [
        422,
        {
          title: 'This cannot be used',
          status: 422,
          detail: 'food.mass_kg: accepted is 0.05 to 12 kg',
          errors: [],
        },
      ],
      'POST /advice': [200, { ...advice, none_safe: 'No setting here.' }],
    })
    const panel = opened(plan())
    await settle()
    expect(panel.get('[role=alert]').text()).toContain('0.05 to 12 kg')
    expect(panel.text()).toContain('No setting here.')
  })
})

describe('another sauce on a fire', () => {
  it('is put in the place of the one that lies under it', () => {
    const given = plan()
    expect(sauceUsed(given.stages, 2)).toBe('glaze')
    expect(sauceUsed(given.stages, 0)).toBe('')
    const other = otherFire(given, 'broil', 'sauce:date-mustard')
    expect(other.layers![0]).toMatchObject({ id: 'glaze', sauce: 'date-mustard' })
    expect(given.layers![0]!.sauce).toBe('plum-tea')
    putOn(given, 'date-mustard')
    expect(given.layers).toMatchObject([{ id: 'glaze', sauce: 'date-mustard' }])
    expect(given.stages).toHaveLength(3)
  })
  it('is brushed on before the last heat where there was none', () => {
    const bare = plan()
    bare.stages.splice(1, 1)
    bare.layers = []
    putOn(bare, 'plum-tea')
    expect(bare.stages.map((stage) => stage.kind)).toEqual(['heat', 'dress', 'heat'])
    expect(bare.layers).toMatchObject([{ sauce: 'plum-tea' }])
    expect(bare.stages[1]).toMatchObject({ layer: bare.layers[0]!.id })
  })
})
