import { nextTick } from 'vue'
import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Chain, ChainForecast } from '@/api/client'
import {
  choices,
  forecast,
  glaze,
  kitchen,
  live,
  NOW,
  part,
  plan,
  serve,
  show,
  type Answer,
} from '@/__tests__/kitchen'
import InsideFood from './InsideFood.vue'
import PlanAssumed from './PlanAssumed.vue'
import PlanPage from './PlanPage.vue'
import PlanWarnings from './PlanWarnings.vue'
import ServeField from '@/shared/ui/ServeField.vue'
import SightWindow from './SightWindow.vue'
import { useDraft } from './draft'

const find = (name: string) => `[data-test='${name}']`
const kept = { id: 5, title: 'x', dish: plan(), version: 3, updated_at: NOW.toISOString() }
const answers = {
  'GET /choices': [200, choices] as Answer,
  'GET /plans': [200, { plans: [kept] }] as Answer,
  'GET /plans/5': [200, kept] as Answer,
  'PUT /plans/5': [200, kept] as Answer,
  'GET /templates': [200, { items: [] }] as Answer,
  'POST /repairs': [200, { repair: null }] as Answer,
  'POST /forecasts/effects': [200, { effects: [] }] as Answer,
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

const settle = async () => {
  await new Promise((done) => setTimeout(done, 220))
  await flushPromises()
}
const heavier = (page: { vm: unknown }, mass_kg: number) =>
  useDraft((page.vm as { $pinia: never }).$pinia).edit((next) => (next.food.mass_kg = mass_kg))

describe('the plan page', () => {
  it('opens a plan by its number, shows both times, and starts a cook', async () => {
    const asked = serve({
      ...answers,
      'POST /forecasts': [200, forecast],
      'POST /cooks': [201, { ...live, id: 12 }],
    })
    const { page, router } = await show(PlanPage, '/plan/5')
    await settle()
    expect(page.text()).toContain('1.6 kg of beef short ribs, 6 pieces')
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
      dish: { food: { cut: 'beef-short-ribs' } },
      plan_id: 5,
      when: 'now',
      accepted: [{ stop: 'liquid-least', reason: 'a very small pot' }],
    })
    expect(router.currentRoute.value.path).toBe('/stove/12')
  })

  it('dims what is refused, tells what is accepted, and never starts it', async () => {
    const refuse = {
      title: 'This cannot be used',
      status: 422,
      detail: '',
      errors: [{ field: 'food.mass_kg', given: '900', accepted: '0.05 to 12 kg' }],
    }
    const answer = (body: unknown): Answer =>
      (body as Chain).food.mass_kg > 12 ? [422, refuse] : [200, forecast]
    serve({ ...answers, 'POST /forecasts': answer })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    heavier(page, 900)
    await settle()
    expect(page.text()).toContain('0.05 to 12 kg')
    expect(page.get(find('start')).attributes('disabled')).toBeDefined()
    expect(page.find('.stale').exists()).toBe(true)
    heavier(page, 1.6)
    await settle()
    expect(page.text()).not.toContain('0.05 to 12 kg')
    expect(page.find('.stale').exists()).toBe(false)
  })

  it('dims the answer of another plan until this one has its own, and does not start it', async () => {
    let late: (answer: Answer) => void = () => {}
    serve({
      ...answers,
      'POST /forecasts': (body) =>
        (body as Chain).food.mass_kg > 2
          ? new Promise<Answer>((done) => (late = done))
          : [200, forecast],
    })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    expect(page.find('.stale').exists()).toBe(false)
    heavier(page, 3)
    await settle()
    await settle()
    expect(page.find('.stale').exists()).toBe(true)
    expect(page.get(find('start')).attributes('disabled')).toBeDefined()
    late([200, forecast])
    await settle()
    expect(page.find('.stale').exists()).toBe(false)
  })

  it('names what heats where that is the least sure', async () => {
    const says = 'how fast your bath heats'
    const unsure: ChainForecast = { ...forecast, least_sure_says: says }
    serve({ ...answers, 'POST /forecasts': [200, unsure] })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    expect(page.text()).toContain('how fast your bath heats')
  })

  it('tells that the kettle is away, and keeps the plan', async () => {
    serve({ ...answers, 'POST /forecasts': 'away' })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('does not answer')
    const name = page.get(find('name')).element as HTMLInputElement
    expect(name.value).toBe('Ribs')
  })

  it('asks why of one fire at a time, and not while something is being reckoned', async () => {
    const asked = serve({
      ...answers,
      'POST /forecasts': [200, forecast],
      'POST /explorer': 'away',
      'POST /advice': 'away',
    })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    expect(asked.some((a) => a.path === '/explorer')).toBe(false)
    await page.get(find('why-broil')).trigger('click')
    await settle()
    await settle()
    expect(asked.find((a) => a.path === '/explorer')!.body).toMatchObject({ stage: 'broil' })
  })
})

describe('parts of the plan', () => {
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
    draft.begin(plan())
    const list = part(PlanWarnings, { props: { forecast } })
    expect(list.get(find('watch-liquid-least')).text()).toContain('stop: Too little liquid.')
    expect(list.findAll('button')).toHaveLength(1)
    await list.get('button').trigger('click')
    expect(draft.chain!.stages[0]).toMatchObject({ liquid_l: 0.32 })
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
    serve({ ...answers, 'GET /kitchen': [200, kitchen] })
    const draft = useDraft()
    draft.begin(plan())
    const list = part(PlanAssumed, {
      props: { forecast, chain: draft.chain!, choices, stale: false },
    })
    expect(list.text()).toContain('assumed')
    await nextTick()
    await list.get('#k-pot_power_w').setValue('1200')
    expect(draft.chain!.kitchen).toEqual({ pot_power_w: 1200 })
    await list.setProps({ forecast: { ...forecast, assumed: [] } })
    await list.findAll('button').at(-1)!.trigger('click')
    expect(draft.chain!.kitchen!.pot_power_w).toBeNull()
  })

  it('tells each slow heat with its liquid, and what goes on', () => {
    const text = part(InsideFood, { props: { forecast } }).text()
    expect(text).toContain('49 min at 117 °C')
    expect(text).toContain('0.32 L of liquid, 0.61 L with the juices; 33 % full')
    expect(text).toContain('84 % likely')
    expect(text).toContain('175 g')
    const dry = { ...forecast.slow_heats[0]!, liquid_l: null, fill: null, lost_share: 0.2 }
    const oven = part(InsideFood, {
      props: { forecast: { ...forecast, slow_heats: [dry], tenderness: null } },
    }).text()
    expect(oven).toContain('20 % of its weight leaves as steam')
    expect(oven).not.toMatch(/liquid|Tender/)
  })
})

describe('what the kitchen brings to a plan', () => {
  it('leaves open what the plan does not state, asks anew where it is known, and says what is', async () => {
    const mine = {
      ...kitchen,
      figures: { rack_m: 0.1, pot_power_w: 700 },
      for_plans: {
        gear: ['thermometer'],
        rack_m: 0.1,
        pot_power_w: 700,
        machines: { pot: { name: 'tall', button: 'Hi', display: 'hours', counts_up: true } },
      },
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
    const volume = { name: 'pot_volume_l', label: 'Pot holds', value: 5.7, unit: 'L', known: 'pot' }
    const asked = serve({
      ...answers,
      'GET /kitchen': [200, mine],
      'POST /forecasts': [200, { ...forecast, assumed: [...forecast.assumed, volume] }],
      'POST /forecasts/effects': [200, { effects: [effect] }],
    })
    const { page } = await show(PlanPage, '/plan/5')
    await settle()
    await settle()
    useDraft(page.vm.$pinia as never).edit((next) => {
      next.kitchen = { pot_power_w: 1400 } as Chain['kitchen']
    })
    await settle()
    await settle()
    const sent = asked.filter((a) => a.path === '/forecasts')
    expect((sent.at(-1)!.body as Chain).kitchen).toEqual({ pot_power_w: 1400 })
    expect(new Set(sent.map((a) => a.headers.get('Kettle-Kitchen')))).toEqual(new Set(['kept']))
    expect(page.get('.effect.ask').text()).toBe('4 L: 6 min later; 8 L: 3 min sooner')
    expect(page.get('.known').text()).toBe('From your kitchen: rack 10 cm.')
    const saved = asked.filter((a) => a.method === 'PUT' && a.path === '/plans/5')
    expect(JSON.stringify(saved)).not.toContain('"rack_m":0.1')
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
