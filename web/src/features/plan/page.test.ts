import { nextTick } from 'vue'
import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Dish } from '@/api/client'
import {
  choices,
  dish,
  forecast,
  glaze,
  keptSauce,
  kitchen,
  live,
  NOW,
  serve,
  show,
  type Answer,
  part,
} from '@/__tests__/kitchen'
import DishAssumed from './DishAssumed.vue'
import FigureField from './FigureField.vue'
import PartChooser from './PartChooser.vue'
import PlanPage from './PlanPage.vue'
import ServeField from './ServeField.vue'
import SightWindow from './SightWindow.vue'
import WatchOuts from './WatchOuts.vue'
import { useDraft } from './draft'

const find = (name: string) => `[data-test='${name}']`
const kept = { id: 5, title: 'x', dish, version: 3, updated_at: NOW.toISOString() }

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

const settle = async () => {
  await new Promise((done) => setTimeout(done, 120))
  await flushPromises()
}

describe('the plan page', () => {
  it('opens the last plan, shows both times, and starts a cook', async () => {
    const asked = serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'POST /forecasts': [200, forecast],
      'POST /cooks': [201, { ...live, id: 12 }],
      'PUT /plans/5': [200, kept],
    })
    const { page, router } = await show(PlanPage, '/plan')
    await settle()
    expect(page.get(find('sentence')).text()).toContain('1.6 kg of beef short ribs in 6 pieces')
    expect(page.get(find('honest')).text()).toBe('1 h 30 min')
    expect(page.get(find('headline')).text()).toBe('57 min')
    expect(page.text()).toContain('how fierce your heat is, so I call you early')
    await page.get(find('start')).trigger('click')
    await settle()
    const posted = () => asked.find((a) => a.path === '/cooks' && a.method === 'POST')
    const stop = page.get(find('stop-liquid-least'))
    expect(page.get(find('start-now')).attributes('disabled')).toBeDefined()
    expect(posted()).toBeUndefined() // a stop stops until it is repaired or answered for
    await stop.get('input').setValue('a very small pot')
    await page.get(find('start-now')).trigger('click')
    await flushPromises()
    expect(posted()!.body).toMatchObject({
      dish: { cut: 'beef-short-ribs' },
      plan_id: 5,
      when: 'now',
      accepted: [{ stop: 'liquid-least', reason: 'a very small pot' }],
    })
    expect(router.currentRoute.value.path).toBe('/stove/12')
  })

  it('shows a fault beside its part, dims what is stale, and never starts it', async () => {
    const refuse = {
      title: 'This cannot be used',
      status: 422,
      detail: '',
      errors: [{ field: 'mass_kg', given: '900', accepted: '0.05 to 12 kg' }],
    }
    const answer = (body: unknown): Answer =>
      (body as { mass_kg: number }).mass_kg > 12 ? [422, refuse] : [200, forecast]
    serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'POST /forecasts': answer,
      'PUT /plans/5': [200, kept],
    })
    const { page } = await show(PlanPage, '/plan')
    await settle()
    const draft = useDraft(page.vm.$pinia as never)
    draft.change({ mass_kg: 900 })
    await settle()
    expect(page.get('.fault').text()).toBe('900 will not do. Use 0.05 to 12 kg.')
    expect(page.get(find('start')).attributes('disabled')).toBeDefined()
    expect(page.find('.stale').exists()).toBe(true)
    draft.change({ mass_kg: 1.6 })
    await settle()
    expect(page.find('.fault').exists()).toBe(false)
    expect(page.find('.stale').exists()).toBe(false)
  })

  it('dims the answer of another dish until this one has its own, and does not start it', async () => {
    let late: (answer: Answer) => void = () => {}
    serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'POST /forecasts': (body) =>
        (body as { mass_kg: number }).mass_kg > 2
          ? new Promise<Answer>((done) => (late = done))
          : [200, forecast],
      'PUT /plans/5': [200, kept],
    })
    const { page } = await show(PlanPage, '/plan')
    await settle()
    expect(page.find('.stale').exists()).toBe(false)
    useDraft(page.vm.$pinia as never).change({ mass_kg: 3 })
    await settle()
    await settle()
    expect(page.find('.stale').exists()).toBe(true)
    expect(page.get(find('start')).attributes('disabled')).toBeDefined()
    late([200, forecast])
    await settle()
    expect(page.find('.stale').exists()).toBe(false)
  })

  it('names what heats where that is the least sure', async () => {
    const unsure = {
      ...forecast,
      least_sure: 'oven_up',
      stages: [
        { ...forecast.stages[1]!, key: 'oven_up', label: 'Bath still heating' },
        ...forecast.stages,
      ],
    }
    serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'POST /forecasts': [200, unsure],
    })
    const { page } = await show(PlanPage, '/plan')
    await settle()
    expect(page.text()).toContain('how fast your bath heats')
  })

  it('has an empty state, and an error state that keeps the dish', async () => {
    serve({ 'GET /choices': [200, choices], 'GET /plans': [200, { plans: [] }] })
    const empty = (await show(PlanPage, '/plan')).page
    await settle()
    expect(empty.text()).toContain('No dish yet.')
    serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'POST /forecasts': 'away',
    })
    const { page } = await show(PlanPage, '/plan')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('does not answer')
    expect(page.get(find('sentence')).text()).toContain('beef short ribs')
  })
})

describe('parts of the plan', () => {
  const chooser = (
    of: 'cut' | 'finish' | 'tenderise' | 'bite' | 'sauce' | 'thickness' | 'coats' | 'serve',
  ) => {
    const draft = useDraft()
    draft.begin({ ...dish })
    return { draft, page: part(PartChooser, { props: { part: of, dish: draft.dish!, choices } }) }
  }
  const press = (page: ReturnType<typeof part>, words: string) =>
    page
      .findAll('button')
      .find((b) => b.text().includes(words))!
      .trigger('click')

  it('each chooser changes its own fields', async () => {
    const cut = chooser('cut')
    await press(cut.page, 'octopus')
    expect(cut.draft.dish).toMatchObject({ cut: 'octopus', pieces: 8 })
    const sauce = chooser('sauce')
    await press(sauce.page, 'no sauce')
    expect(sauce.draft.dish).toMatchObject({ sauce: null, coats: 0 })
    const heat = chooser('tenderise')
    await press(heat.page, 'braised')
    expect(heat.draft.dish?.tenderise).toBe('braise')
    const bath = chooser('tenderise')
    bath.draft.change({ kitchen: { pot_power_w: 900 } as Dish['kitchen'] })
    await press(bath.page, 'water bath')
    await bath.page.setProps({ dish: bath.draft.dish! })
    await bath.page.get('button[aria-label="more, Set at"]').trigger('click')
    expect(bath.draft.dish?.kitchen).toMatchObject({ bath_c: 70, pot_power_w: 900 })
    const plates = chooser('finish')
    plates.draft.change({ flips_min: [2] })
    await press(plates.page, 'between hot plates')
    expect(plates.draft.dish).toMatchObject({ finish: 'contact', flips_min: [] })
    await plates.page.setProps({ dish: plates.draft.dish! })
    expect(plates.page.text()).not.toContain('Turn it at')
    const bite = chooser('bite')
    await press(bite.page, 'pulls into strands')
    expect(bite.draft.dish?.bite).toBe('shreds')
    const thick = chooser('thickness')
    await press(thick.page, '2')
    expect(thick.draft.dish?.thickness_mm).toBe(36)
  })

  it('a figure is kept as typed, steps by its step, and empties to computed', async () => {
    const draft = useDraft()
    draft.begin({ ...dish })
    const field = part(FigureField, {
      props: {
        field: 'mass_kg',
        label: 'How much',
        value: 1.6,
        factor: 0.45359237,
        unit: 'lb',
        step: 0.25,
        decimals: 2,
      },
    })
    expect(field.get('input').element.value).toBe('3.53')
    await field.get('input').setValue('4')
    expect(draft.dish?.mass_kg).toBeCloseTo(1.814, 3)
    await field.get('input').setValue('lots')
    expect(draft.dish?.mass_kg).toBe('lots')
    const liquid = part(FigureField, {
      props: {
        field: 'liquid_l',
        label: 'Liquid',
        value: 0.4,
        factor: 1,
        unit: 'L',
        step: 0.05,
        decimals: 2,
        optional: true,
      },
    })
    await liquid.get('button[aria-label="more, Liquid"]').trigger('click')
    expect(draft.dish?.liquid_l).toBeCloseTo(0.45, 6)
    await liquid.get('input').setValue('')
    expect(draft.dish?.liquid_l).toBeNull()
  })

  it('serving is now, at a moment, or a step sooner and later', async () => {
    const field = part(ServeField, { props: { serveAt: '2030-05-04T18:00:00.000Z' } })
    const [soon, less, more] = field.findAll('button')
    await less!.trigger('click')
    await more!.trigger('click')
    await soon!.trigger('click')
    expect(field.emitted('change')).toEqual([
      ['2030-05-04T17:45:00.000Z'],
      ['2030-05-04T18:15:00.000Z'],
      [null],
    ])
  })

  it('a watch-out is mended by one tap, and its level is a word', async () => {
    const draft = useDraft()
    draft.begin({ ...dish, liquid_l: 0.05 })
    const list = part(WatchOuts, {
      props: { list: forecast.watch_outs, guidance: forecast.guidance },
    })
    expect(list.get(find('watch-liquid-least')).text()).toContain('stop: Too little liquid.')
    expect(list.findAll('button')).toHaveLength(1)
    await list.get('button').trigger('click')
    expect(draft.dish?.liquid_l).toBe(0.32)
  })

  it('tells both windows, and says so when there is none', () => {
    expect(part(SightWindow, { props: { glaze } }).text()).toContain(
      'edges first; the face is amber 1:10 to 2:00 later. From there at least 0:30 before it',
    )
    expect(part(SightWindow, { props: { glaze } }).text()).toContain(
      'By the clock: out between 3:20 and 4:20, right 5 times in 10.',
    )
    const blind = { ...glaze, window: { ...glaze.window, empty: true }, gaps: [] }
    expect(part(SightWindow, { props: { glaze: blind } }).text()).not.toContain('clock')
  })

  it('an assumption is written over and assumed again', async () => {
    const draft = useDraft()
    draft.begin({ ...dish })
    const list = part(DishAssumed, { props: { forecast, dish: draft.dish!, choices } })
    expect(list.text()).toContain('assumed')
    await nextTick()
    await list.get('#k-pot_power_w').setValue('1200')
    expect(draft.dish?.kitchen).toEqual({ pot_power_w: 1200 })
    await list.setProps({ forecast: { ...forecast, assumed: [] }, dish: draft.dish! })
    await list.findAll('button').at(-1)!.trigger('click')
    expect(draft.dish?.kitchen?.pot_power_w).toBeNull()
  })
})

describe('what the kitchen brings to a plan', () => {
  it('fills what the dish leaves open, never what it states, and says which figures it knows', async () => {
    const mine = {
      ...kitchen,
      figures: { rack_m: 0.1, pot_power_w: 700 },
      machines: { pot: { name: 'tall', button: 'Hi', display: 'hours', counts_up: true } },
    }
    const effect = {
      name: 'pot_volume_l',
      low: 4,
      high: 8,
      unit: 'L',
      low_says: '',
      high_says: '',
      plate_low_min: 6.2,
      plate_high_min: -3.4,
      ask: true,
    }
    const asked = serve({
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [kept] }],
      'GET /kitchen': [200, mine],
      'PUT /plans/5': [200, kept],
      'POST /forecasts': [
        200,
        {
          ...forecast,
          assumed: [
            ...forecast.assumed,
            { name: 'pot_volume_l', label: 'Pot holds', value: 5.7, unit: 'L', known: 'pot' },
          ],
        },
      ],
      'POST /forecasts/effects': [200, { effects: [effect] }],
    })
    const { page } = await show(PlanPage, '/plan')
    await settle()
    await settle()
    useDraft(page.vm.$pinia as never).change({ kitchen: { pot_power_w: 1400 } } as never)
    await settle()
    const sent = asked.filter((a) => a.path === '/forecasts').at(-1)!.body as {
      kitchen: Record<string, unknown>
    }
    expect(sent.kitchen).toMatchObject({
      rack_m: 0.1,
      pot_power_w: 1400,
      gear: ['thermometer'],
      machines: { pot: { button: 'Hi' } },
    })
    expect(page.get('.effect.ask').text()).toBe('4 L: 6 min later; 8 L: 3 min sooner')
    expect(
      page
        .findAll('.assumed .row label')
        .map((l) => l.text())
        .slice(0, 2),
    ).toEqual(['Pot holds', 'Pot heats with'])
    expect(page.get('.known').text()).toBe('From your kitchen: rack 10 cm.')
    const plan = asked.find((a) => a.method === 'PUT' && a.path === '/plans/5')
    expect(JSON.stringify(plan?.body ?? '')).not.toContain('"rack_m":0.1')
  })

  it('puts a sauce of one’s own on the dish, simmered, and tells what the server refuses', async () => {
    const own = keptSauce(4, 'Plum and tea', { simmer: { minutes: 6, power_w: 900 } })
    const refuse: Answer = [
      422,
      {
        title: 'This cannot be used',
        status: 422,
        detail: 'lines: nothing was understood',
        errors: [],
      },
    ]
    const answer = vi.fn((body: unknown): Answer =>
      answer.mock.calls.length === 1
        ? refuse
        : [200, { ...(body as object), contact: 'raw-contact' }],
    )
    const asked = serve({
      'GET /sauces': [200, { sauces: [own, keptSauce(5, 'Rub', { kind: 'rub' })] }],
      'POST /sauces/on-dish': answer,
    })
    const draft = useDraft()
    draft.begin({ ...dish, sauce: null, coats: 0 })
    const page = part(PartChooser, {
      props: { part: 'sauce', dish: draft.dish!, choices },
      global: { stubs: ['RouterLink'] },
    })
    await flushPromises()
    draft.begin({ ...dish, sauce: null, coats: 0 })
    const pick = () => page.findAll('[role=radio]').find((r) => r.text().includes('Plum and tea'))!
    expect(page.text()).not.toContain('Rub')
    await pick().trigger('click')
    await flushPromises()
    expect(page.get('[role=alert]').text()).toContain('nothing was understood')
    await pick().trigger('click')
    await flushPromises()
    expect(asked.filter((a) => a.path === '/sauces/on-dish').at(-1)!.body).toMatchObject({
      simmer: { minutes: 6 },
    })
    const found = useDraft(page.vm.$pinia as never).dish
    expect(found).toMatchObject({
      coats: 1,
      sauce: { sauce_id: 4, contact: 'raw-contact' },
    })
  })

  it('offers the next of each usual hour of eating', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: new Date(2030, 4, 4, 19, 30) })
    serve({
      'GET /kitchen': [
        200,
        { ...kitchen, settings: { ...kitchen.settings, meal_hours: ['19:00', '20:15'] } },
      ],
    })
    const { page: field } = await show(ServeField, '/', { props: { serveAt: null } })
    const hours = field.findAll(find('usual-hour'))
    expect(hours.map((h) => h.text())).toEqual(['19:00 tomorrow', '20:15 today'])
    await hours[1]!.trigger('click')
    expect(field.emitted('change')).toEqual([[new Date(2030, 4, 4, 20, 15).toISOString()]])
    vi.useRealTimers()
  })
})
