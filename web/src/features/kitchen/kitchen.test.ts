import { createPinia, setActivePinia } from 'pinia'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  broiler,
  choices,
  kitchen,
  NOW,
  pot,
  serve,
  show,
  type Answer,
  part,
} from '@/__tests__/kitchen'
import type { Appliance, Fit, Kitchen } from '@/api/client'
import ApplianceSheet from './ApplianceSheet.vue'
import CalibratePanel from './CalibratePanel.vue'
import FitPanel from './FitPanel.vue'
import KitchenPage from './KitchenPage.vue'
import { factorPlace, factorRange, fromAbove, fromTheSide, shelf } from './drawing'

const find = (name: string) => `[data-test='${name}']`
const place = (x_m: number, y_m: number) => ({ x_m, y_m, width_m: 0.08, depth_m: 0.06 })
const fit: Fit = {
  length_mm: 80,
  breadth_mm: 60,
  height_mm: 45,
  places: [place(-0.05, 0), place(0.05, 0)],
  per_layer: 2,
  layers: 2,
  batches: 2,
  free_mm: 115,
  fill: { share: 0.4, line: 0.667, liquid_before_l: 0.25, liquid_after_l: 0.55 },
  verdicts: [
    {
      level: 'careful',
      message: '4 of 6 ribs go in at once: 2 batches.',
      repair: 'Hold the first batch warm',
    },
  ],
  guidance: 'Usual guidance.',
}
const open = { low_s: 200, likely_s: 300, high_s: 450, reached: 1 }

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'Date'],
    now: NOW,
  })
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = async (ms = 400) => {
  await vi.advanceTimersByTimeAsync(ms)
  await flushPromises()
}

describe('the drawings', () => {
  it('stand all insides on one shelf at one scale, racks only inside', () => {
    const { drawn, height } = shelf([broiler, pot, { ...pot, id: 9, width_mm: 0 }], 0.3)
    expect(drawn[0]!.width / drawn[1]!.width).toBeCloseTo(420 / 220, 5)
    expect(drawn[0]!.racks).toEqual([80 * 0.3, 150 * 0.3])
    expect(drawn.map((d) => d.sized)).toEqual([true, true, false])
    expect(height).toBe(60)
    for (let i = 1; i < drawn.length; i++)
      expect(drawn[i]!.x).toBeGreaterThan(drawn[i - 1]!.x + drawn[i - 1]!.width)
  })
  it('put typical heat in the middle of its bar and keep the ends on it', () => {
    expect([0.5, 1, 2].map((f) => Math.round(factorPlace(f)))).toEqual([0, 50, 100])
    expect([0.1, 9].map(factorPlace)).toEqual([0, 100])
    const [low, high] = factorRange(1.2, 0.35)
    expect(low * high).toBeCloseTo(1.44, 6)
    expect(high / 1.2).toBeCloseTo(Math.exp(1.2816 * 0.35), 6)
  })
  it('lay the pieces where the server put them, within the walls and to scale', () => {
    const { pieces, width, height } = fromAbove(
      fit,
      { shape: 'box', width_mm: 240, depth_mm: 120 },
      240,
    )
    expect([width, height]).toEqual([240, 120])
    expect(pieces).toEqual([
      { x: 30, y: 30, width: 80, height: 60 },
      { x: 130, y: 30, width: 80, height: 60 },
    ])
    const side = fromTheSide(fit, 150, 20, 4)
    expect(side.food).toHaveLength(2)
    expect(side.food[0]!.from).toBeCloseTo(20 / 150, 6)
    expect(side.food[1]!.from).toBeCloseTo(side.food[0]!.to, 6)
    expect(fromTheSide({ ...fit, layers: 0, per_layer: 0 }, 150, 0, 6).food).toHaveLength(1)
  })
})

describe('the kitchen', () => {
  const kept = (appliances: Appliance[]): Kitchen => ({ ...kitchen, appliances })
  const others: Record<string, Answer> = {
    'GET /choices': [200, choices],
    'GET /sauces': [200, { sauces: [] }],
    'POST /fit': [200, fit],
  }

  it('asks nothing of an empty one, takes an appliance in, and shows it', async () => {
    let now = kept([])
    const fryer = {
      ...pot,
      id: 8,
      kind: 'air-fryer',
      type: 'air_fryer',
      given: { ...pot.given, kind: 'air-fryer', name: 'air fryer' },
    }
    const asked = serve({
      ...others,
      'GET /kitchen': () => [200, now],
      'POST /kitchen/appliances': () => ((now = kept([fryer])), [201, fryer]),
    })
    const { page } = await show(KitchenPage, '/kitchen')
    await settle()
    expect(page.text()).toContain('Nothing entered, and nothing has to be.')
    await page.getComponent(find('add-kind')).setValue('air-fryer')
    await page.get(find('add-appliance')).trigger('click')
    await settle()
    expect(
      asked.find((a) => a.method === 'POST' && a.path === '/kitchen/appliances')!.body,
    ).toEqual({ kind: 'air-fryer', name: 'air fryer' })
    expect(page.find(find('appliance-8')).exists()).toBe(true)
    page.unmount()
  })

  it('keeps one figure and leaves the others, and tells what is refused', async () => {
    const put = vi.fn((): Answer =>
      put.mock.calls.length === 1
        ? [200, broiler]
        : [
            422,
            {
              title: 'This cannot be used',
              status: 422,
              detail: '',
              errors: [{ field: 'preheat_min', given: '999', accepted: '0 to 120 min' }],
            },
          ],
    )
    const asked = serve({
      ...others,
      'GET /kitchen': [200, kept([broiler])],
      'PUT /kitchen/appliances/2': put,
    })
    const { page } = await show(KitchenPage, '/kitchen')
    await settle()
    const box = page.findAll('.figures input')[1]!
    expect(box.attributes('placeholder')).toBe('6')
    await box.setValue('9')
    await settle()
    expect(asked.filter((a) => a.method === 'PUT')[0]!.body).toEqual({
      ...broiler.given,
      preheat_min: 9,
    })
    await box.setValue('999')
    await settle()
    expect(page.get('[role=alert]').text()).toContain(
      'preheat: “999” will not do. Use 0 to 120 min.',
    )
    page.unmount()
  })

  it('sends again what the server was away for', async () => {
    let away = true
    const asked = serve({
      ...others,
      'GET /kitchen': () => (away ? 'away' : [200, kept([broiler])]),
      'PUT /kitchen/appliances/2': () => (away ? 'away' : [200, broiler]),
    })
    away = false
    const { page } = await show(KitchenPage, '/kitchen')
    await settle()
    away = true
    await page.findAll('.figures input')[1]!.setValue('11')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('does not answer')
    await page.get('[role=alert] button').trigger('click')
    await settle()
    away = false
    await settle(15_000)
    expect(page.find('[role=alert]').exists()).toBe(false)
    expect(
      asked
        .filter((a) => a.method === 'PUT')
        .map((a) => (a.body as { preheat_min: number }).preheat_min),
    ).toEqual([11, 11, 11])
    page.unmount()
  })

  it('shows and takes the units of the cook, and keeps SI', async () => {
    localStorage.setItem('kettle-degrees', 'F')
    const asked = serve({
      ...others,
      'GET /kitchen': [200, kept([broiler])],
      'PUT /kitchen/settings': [200, kitchen],
    })
    const { page } = await show(KitchenPage, '/kitchen')
    await settle()
    await page.getComponent(find('degrees')).setValue('F')
    await page.getComponent(find('measures')).setValue('us')
    await settle()
    const sheet = part(ApplianceSheet, {
      props: {
        appliance: {
          ...pot,
          figures: [
            {
              name: 'setting_c',
              label: 'set at',
              value: 230,
              unit: '°C',
              assumed: false,
              figure: null,
            },
            {
              name: 'width_m',
              label: 'width',
              value: 254,
              unit: 'mm',
              assumed: false,
              figure: null,
            },
          ],
        },
        bodies: [],
      },
    })
    expect(sheet.findAll('.unit').map((u) => u.text())).toEqual(['°F', 'in'])
    expect(
      sheet.findAll('.figures input').map((i) => (i.element as HTMLInputElement).value),
    ).toEqual(['446', '10'])
    await sheet.findAll('.figures input')[0]!.setValue('450')
    expect((sheet.emitted('keep')!.at(-1)![0] as { setting_c: number }).setting_c).toBeCloseTo(
      232.2222,
      3,
    )
    await sheet.findAll('.figures button')[1]!.trigger('click')
    expect((sheet.emitted('keep')!.at(-1)![0] as { setting_c: number }).setting_c).toBeCloseTo(
      (460 - 32) / 1.8,
      3,
    )
    expect(asked.filter((a) => a.path === '/kitchen/settings').map((a) => a.body)).toMatchObject([
      { temperature: 'F' },
      { measures: 'us' },
    ])
    await page.getComponent(find('degrees')).setValue('C')
    await page.getComponent(find('measures')).setValue('metric')
    page.unmount()
  })

  it('keeps what is no distance in its box, and sends only racks that are', async () => {
    const page = part(ApplianceSheet, { props: { appliance: broiler, bodies: [] } })
    const box = page.get('.racks input')
    await box.setValue('70, low')
    expect(page.get('[role=alert]').text()).toContain('“low” is not a distance')
    expect(page.emitted('keep')).toBeUndefined()
    expect((box.element as HTMLInputElement).value).toBe('70, low')
    await box.setValue('70; 140')
    expect(page.emitted('keep')).toEqual([[{ racks_mm: [70, 140] }]])
    expect(page.find('[role=alert]').exists()).toBe(false)
  })

  it('says beside an assumed figure what it is worth tonight, and nothing beside a stated one', () => {
    const effects = [
      {
        name: 'broiler_preheat_min',
        low: 3,
        high: 10,
        unit: 'min',
        low_says: '',
        high_says: '',
        plate_low_min: -2.1,
        plate_high_min: 3.6,
        ask: false,
      },
    ]
    const page = part(ApplianceSheet, { props: { appliance: broiler, bodies: [], effects } })
    expect(page.findAll('.figures small').map((n) => n.text())).toEqual([
      'assumed',
      'assumed; 3 min: 2 min sooner; 10 min: 4 min later',
    ])
    const stated = { ...broiler, figures: [{ ...broiler.figures[1]!, assumed: false }] }
    expect(
      part(ApplianceSheet, { props: { appliance: stated, bodies: [], effects } })
        .find('.figures small')
        .exists(),
    ).toBe(false)
  })

  it('times a sign from the moment it went under, keeps it, and can forget it again', async () => {
    serve({ 'GET /sauces': [200, { sauces: [] }] })
    const observe = vi.fn(async () => ({
      appliance: broiler,
      before: { ...open, likely_s: 400 },
      after: open,
      says: '',
    }))
    const seen = [
      {
        id: 31,
        ground: 'bread',
        sign: 'amber',
        at_s: 150,
        dial: 0.15,
        sauce: 'plain bread',
        made_at: NOW.toISOString(),
        forgotten: false,
        cook_id: null,
      },
    ]
    const page = part(CalibratePanel, {
      props: { appliance: { ...broiler, observations: seen }, observe },
    })
    await settle()
    await page.getComponent(find('ground')).setValue('bread')
    await page.get(find('scout-start')).trigger('click')
    expect(page.find(find('sign-bubbling')).exists()).toBe(false)
    await settle(95_000)
    expect(page.get('.clock').text()).toBe('1:35')
    await page.get(find('sign-amber')).trigger('click')
    await settle()
    expect(observe).toHaveBeenCalledWith(
      expect.objectContaining({ ground: 'bread', sign: 'amber', at_s: 95, sauce_id: null }),
    )
    expect(page.get('[role=status]').text()).toContain(
      'mahogany at 6:40 (3:20 to 7:30); now at 5:00',
    )
    expect(page.get(find('sign-amber')).attributes('disabled')).toBeDefined()
    await page.get(find('forget-31')).trigger('click')
    expect(page.emitted('forget')).toEqual([[31, false]])
    page.unmount()
  })

  it('lays tonight’s food into the vessel and says what stands in the way', async () => {
    const asked = serve({ 'POST /fit': [200, fit] })
    const page = part(FitPanel, {
      props: { appliance: pot, inside: pot.inside!, choices, food: null },
    })
    await settle()
    expect(asked[0]!.body).toMatchObject({
      cut: 'beef-short-ribs',
      stacked: true,
      touching: true,
      inside: { shape: 'round', width_mm: 220, volume_l: 5.7, least_liquid_l: 0.25 },
    })
    expect(page.findAll('.piece').length).toBe(2 + 2)
    expect(page.text()).toContain('4 of 6 ribs go in at once')
    expect(page.text()).toContain('0.55 L once the juices are out')
    await page.getComponent(find('fit-lying')).setValue('gap')
    await page.get(find('fit-swells') + ' input').setValue(true)
    await settle()
    expect(asked.at(-1)!.body).toMatchObject({ stacked: false, touching: false, swells: true })
    page.unmount()
  })
})
