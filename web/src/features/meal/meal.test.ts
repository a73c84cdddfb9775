import { flushPromises, mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Meal, Schedule } from '@/api/client'
import { at, kitchen, serve, show, type Answer } from '@/__tests__/kitchen'
import { clock } from '@/shared/format/time'
import FireLine from './FireLine.vue'
import GuestsField from './GuestsField.vue'
import MealList from './MealList.vue'
import MealPage from './MealPage.vue'
import MealPrepare from './MealPrepare.vue'
import { BOARD, busySpans, fireLine, heightAt, piecesOf, Scale, slotsOf, ticks } from './fireLine'
import { lateness, told } from './words'

const MIN = 60
const task = (line: string, key: string, from: number, to: number, who = 'hands', pair = 0) => ({
  key: `${line}/${key}`,
  line,
  label: key,
  who: who as 'hands',
  start_at: at(from * MIN),
  end_at: at(to * MIN),
  hands_at: at(from * MIN),
  pair: who === 'machine' ? null : pair,
})
const use = (
  line: string,
  body: string,
  from: number,
  to: number,
  temp_c: number | null = null,
) => ({
  line,
  kind: body,
  body,
  temp_c,
  start_at: at(from * MIN),
  end_at: at(to * MIN),
})
const plan: Schedule = {
  name: 'Boathouse',
  feasible: true,
  serve_at: at(200 * MIN),
  ready_at: at(196 * MIN),
  ready_low_at: at(195 * MIN),
  ready_high_at: at(204 * MIN),
  late: 0.09,
  first_at: at(0),
  latest_first_at: at(6 * MIN),
  soonest_at: null,
  hands_s: 1500,
  proven: true,
  lines: [
    { id: 'ribs', name: 'Short ribs', kind: 'dish', plan_id: 1 },
    { id: 'slaw', name: 'Slaw', kind: 'side', plan_id: null },
  ],
  tasks: [
    task('ribs', 'load', 0, 2),
    task('ribs', 'hold', 2, 150, 'machine'),
    task('slaw', 'prepare', 60, 70),
    task('ribs', 'open', 150, 152),
    task('ribs', 'brush', 170, 172),
    task('ribs', 'broil', 172, 180, 'fire'),
    task('ribs', 'out', 180, 181),
    task('slaw', 'finish', 190, 192),
    task('ribs', 'serve', 194, 196),
  ],
  waits: [],
  aheads: [
    {
      line: 'ribs',
      label: 'Heat the broiler',
      body: 'oven',
      start_at: at(160 * MIN),
      ready_at: at(172 * MIN),
    },
  ],
  uses: [use('ribs', 'pot', 0, 152), use('ribs', 'oven', 172, 181, 220)],
  past: [],
  reasons: [],
  repairs: [],
  assumed: [],
  helpings: null,
  shopping: [{ name: 'plum jam', amount: '360 g', users: ['Short ribs'] }],
  prepare: [],
  guidance: 'Usual guidance only.',
}

describe('the fire line', () => {
  it('takes a dish through its appliances and over the board, cold and warm', () => {
    const pieces = piecesOf(plan, 'ribs').map((p) => [p.channel, p.kind])
    expect(pieces).toEqual([
      ['pot', 'slow'],
      [BOARD, 'warm'],
      ['oven', 'fire'],
      ['oven', 'slow'],
      [BOARD, 'warm'],
    ])
    expect(piecesOf(plan, 'slaw').map((p) => p.kind)).toEqual(['cold'])
    const all = piecesOf(plan, 'ribs')
    all.slice(1).forEach((piece, n) => expect(piece.from).toBe(all[n]!.to))
  })
  it('runs on in order, faster where no hands are wanted, and tells what it leaves out', () => {
    const zero = new Date(at(0)).getTime() / 60_000
    const spans = busySpans(plan.tasks, zero + 196)
    const scale = new Scale(spans, zero, zero + 196, 100, 900)
    const xs = Array.from({ length: 197 }, (_, n) => scale.x(zero + n))
    xs.slice(1).forEach((x, n) => expect(x).toBeGreaterThan(xs[n]!))
    expect(xs[0]).toBeCloseTo(100, 6)
    expect(xs[196]).toBeCloseTo(900, 6)
    expect(xs[181]! - xs[172]!).toBeCloseTo(9 * scale.perMinute, 6)
    expect(xs[60]! - xs[2]!).toBeLessThan(20 * scale.perMinute)
    expect(scale.breaks.map((one) => Math.round(one.minutes))).toEqual([58, 80])
    const shown = ticks(scale, zero, zero + 196)
    shown
      .slice(1)
      .forEach((one, n) => expect(scale.x(one) - scale.x(shown[n]!)).toBeGreaterThanOrEqual(64))
  })
  it('lays what is there at once below each other, each dish on its own height', () => {
    const spans = [
      { key: 'a1', line: 'a', from: 0, to: 10 },
      { key: 'b1', line: 'b', from: 5, to: 15 },
      { key: 'a2', line: 'a', from: 12, to: 20 },
      { key: 'c1', line: 'c', from: 15, to: 20 },
    ]
    const { of, count } = slotsOf(spans)
    expect(Object.fromEntries(of)).toEqual({ a1: 0, b1: 1, a2: 0, c1: 1 })
    expect(count).toBe(2)
    const { ribbons, channels, threads } = fireLine(plan)
    expect(channels.map((c) => c.name)).toEqual(['pot', BOARD, 'oven'])
    expect(threads).toHaveLength(1)
    expect(threads[0]!.map((v) => v.label)).toEqual([
      'load',
      'prepare',
      'open',
      'brush',
      'broil',
      'out',
      'finish',
      'serve',
    ])
    const oven = channels[2]!
    const y = heightAt(ribbons, 'ribs', new Date(at(175 * MIN)).getTime() / 60_000)
    expect(y).toBeGreaterThan(oven.top)
    expect(y).toBeLessThan(oven.top + oven.height)
  })
  it('moves the plate by keys, in fives', async () => {
    const { page } = await show(FireLine, '/meal', {
      props: { plan, wanted: plan.serve_at, dim: false, shown: '', away: [] },
    })
    expect(page.findAll("[data-test='away-span']")).toHaveLength(0)
    const plate = page.get("[data-test='plate']")
    await plate.trigger('keydown', { key: 'ArrowRight' })
    await plate.trigger('keydown', { key: 'PageDown' })
    await plate.trigger('keydown', { key: 'x' })
    expect(page.emitted('move')).toEqual([[5], [-30]])
    expect(plate.attributes('aria-valuetext')).toContain('on the table at')
  })
  it('shows what waits past its limit, on its ribbon, and when two want the same', async () => {
    const span = (line: string, from: number, to: number) => ({
      line,
      start_at: at(from * MIN),
      end_at: at(to * MIN),
    })
    const past = [{ line: 'ribs', says: 'Too long.', spans: [span('ribs', 181, 194)] }]
    const twice = [span('ribs', 150, 160), span('slaw', 150, 160), span('ribs', 60, 61)]
    const troubled = { ...plan, past, reasons: [{ line: '', says: 'Twice.', spans: twice }] }
    const { page } = await show(FireLine, '/meal', {
      props: { plan: troubled, wanted: plan.serve_at, dim: false, shown: '', away: [] },
    })
    const [limit] = page.findAll("[data-test='past-limit']")
    expect(limit!.text()).toBe('Too long.')
    const { ribbons } = fireLine(plan)
    const y = heightAt(ribbons, 'ribs', new Date(at(190 * MIN)).getTime() / 60_000)
    expect(limit!.attributes('d')).toMatch(new RegExp(`^M[\\d.]+ ${y} H`))
    expect(page.findAll("[data-test='clash']").map((one) => one.text())).toEqual(['Twice.'])
  })
  it('is darker where nobody is at work, as far as it goes', async () => {
    const away = [
      { start: at(-600 * MIN), end: at(40 * MIN) },
      { start: at(-600 * MIN), end: at(-60 * MIN) },
    ]
    const { page } = await show(FireLine, '/meal', {
      props: { plan, wanted: plan.serve_at, dim: false, shown: '', away },
    })
    const [night, ...others] = page.findAll("[data-test='away-span'] rect")
    expect(others).toHaveLength(0)
    expect(Number(night!.attributes('width'))).toBeGreaterThan(20)
  })
})

describe('guests', () => {
  const names = new Map([['ribs', 'Short ribs']])
  const helpings = { head_g: 470, wanted_g: 190, enough: true, line: 'ribs', more_g: 0 }
  const field = (guests: number | null, told: Schedule['helpings']) =>
    mount(GuestsField, {
      props: { meal: { dishes: [], guests } as unknown as Meal, helpings: told, names },
      global: { plugins: [ElementPlus] },
    })
  it('have plenty, enough, or are told what more there should be', () => {
    const says = (told: Partial<typeof helpings>) =>
      field(6, { ...helpings, ...told })
        .get("[data-test='helpings']")
        .text()
    expect(says({})).toBe('About 470 g each, cooked and without bones: plenty.')
    expect(says({ head_g: 200 })).toContain('without bones: enough.')
    expect(says({ head_g: 140, enough: false, more_g: 1700 })).toBe(
      'About 140 g each, cooked and without bones, where 190 g are usual. 1.7 kg more would do: Short ribs, as bought.',
    )
    expect(field(null, null).find("[data-test='helpings']").exists()).toBe(false)
  })
  it('are as many as are told, for the server to refuse, or nobody told how many', async () => {
    const page = field(null, null)
    const box = page.get('input')
    const told = async (text: string) => {
      await box.setValue(text)
      await box.trigger('change')
      const meal = { guests: 9 } as Meal
      const change = page.emitted<[(next: Meal) => void]>('edit')!.at(-1)![0]
      change(meal)
      return meal.guests
    }
    expect(await told('6')).toBe(6)
    expect(await told('4000')).toBe(4000)
    expect(await told('-3')).toBe(-3)
    expect(await told('0')).toBeNull()
  })
})

describe('on paper', () => {
  it('takes a page for four hours, the last one up to supper', () => {
    const late = (one: Schedule['tasks'][number]) => ['ribs/load', 'ribs/hold'].includes(one.key)
    const early = task('ribs', 'load', -60, -58)
    const tasks = [early, ...plan.tasks.filter((one) => !late(one))]
    const now = new Date(at(-120 * MIN))
    const list = mount(MealList, { props: { plan: { ...plan, tasks }, now, shown: '' } })
    const heads = list.findAll('h3').map((head) => head.text())
    const time = (minutes: number) => clock(at(minutes * MIN))
    expect(heads).toEqual([
      `${time(-60)} to ${time(-58)}, page 1 of 2`,
      `${time(60)} to ${time(196)}, page 2 of 2`,
    ])
    expect(list.findAll('li.end').length).toBe(1)
    const alone = mount(MealList, { props: { plan, now, shown: '' } })
    expect(alone.findAll('h3').map((head) => head.text())).toEqual([`${time(0)} to ${time(196)}`])
  })
  it('tells when to start what then goes on by itself', () => {
    const cook = { ...task('slaw', 'cook', 80, 110, 'machine'), label: 'Rice' }
    const tasks = [...plan.tasks, cook]
    const props = { plan: { ...plan, tasks }, now: new Date(at(0)), shown: '' }
    const rows = (given: typeof props) =>
      mount(MealList, { props: given })
        .findAll('li.on')
        .map((row) => row.text())
    expect(rows(props).join()).toContain('Start: rice, 30 min')
    const at_once = { ...cook, start_at: at(70 * MIN), end_at: at(100 * MIN) }
    const after = { ...props, plan: { ...plan, tasks: [...plan.tasks, at_once] } }
    expect(rows(after).join()).toContain('Start: rice, 30 min')
    // a dish goes on by itself behind its own hands, and is put on again after a wait
    expect(rows(after).join()).not.toContain('Start: hold')
    const alone = plan.tasks.filter((one) => one.key !== 'ribs/load')
    expect(rows({ ...props, plan: { ...plan, tasks: alone } }).join()).toContain('Start: hold')
  })
  it('tells what may be done the day before, and what may not', () => {
    const ready = new Date(plan.ready_at).setHours(19, 0, 0, 0)
    const hours = (h: number) => new Date(ready + h * 3_600_000).toISOString()
    const one = (key: string, start: number, earliest: number | null, line = 'ribs') => ({
      key,
      line,
      label: key,
      start_at: hours(start),
      seconds: 600,
      earliest_at: earliest === null ? null : hours(earliest),
    })
    const prepare = [
      one('bag', -22, -22),
      one('salt', -3, -15),
      one('cut', -2, -20),
      one('mix', -1.5, null),
      one('slice', -1, -4, 'slaw'),
      one('rub', -0.5, -0.5),
    ]
    const props = { plan: { ...plan, prepare, ready_at: hours(0) }, now: new Date(hours(-1)) }
    const page = mount(MealPrepare, { props })
    const acts = (key: string) =>
      page.findAll(`[data-test='prepare-${key}'] li`).map((row) => row.text())
    expect(acts('before').map((text) => text.includes('bag'))).toEqual([true])
    expect(acts('before')[0]).toMatch(/^\w{3}, \d+ \w{3} *21:00 *bag/)
    expect(acts('may').map((text) => text.slice(0, 3))).toEqual(['cut', 'mix'])
    expect(page.get("[data-test='prepare-may']").text()).toContain('covered in the fridge')
    const twice = { ...one('glaze', -1.5, null, 'slaw'), label: 'mix' }
    const shared = mount(MealPrepare, {
      props: { ...props, plan: { ...props.plan, prepare: [...prepare, twice] } },
    })
    const mixed = shared.findAll("[data-test='prepare-may'] li").at(-1)!.text()
    expect(mixed).toMatch(/^mix.*once for .+ and .+, *20 min$/s)
    const same = mount(MealPrepare, { props: { ...props, now: new Date(hours(-1)) } })
    expect(same.get("[data-test='prepare-may'] h3").text()).toBe('At any time before')
    const ahead = mount(MealPrepare, { props: { ...props, now: new Date(hours(-30)) } })
    expect(ahead.get("[data-test='prepare-may'] h3").text()).toBe('The day before, if you like')
    expect(page.get("[data-test='prepare-on']").text()).not.toContain('covered in the fridge')
    expect(acts('on').map((text) => text.replace(/\s+/g, ' '))).toEqual([
      '16:00 saltShort ribs, 10 min, from 04:00 if you like',
      '18:00 sliceSlaw, 10 min, from 15:00 if you like',
      '18:30 rubShort ribs, 10 min',
    ])
    const late = new Date(plan.ready_at).setHours(24, 30, 0, 0) // half past midnight
    const salt = { ...one('salt', 0, 0), start_at: new Date(late - 7_200_000).toISOString() }
    const night = { ...plan, prepare: [{ ...salt, earliest_at: salt.start_at }] }
    night.ready_at = new Date(late).toISOString()
    const evening = mount(MealPrepare, { props: { plan: night, now: new Date(late - 1e7) } })
    expect(evening.get("[data-test='prepare-on']").text()).toContain('22:30 salt')
  })
})

describe('words of a meal', () => {
  it('put moments on this clock, and say how often it is late', () => {
    expect(told('between ⟦2030-05-04T18:12:00+00:00⟧ and later')).toMatch(
      /between \d\d:12 and later/,
    )
    expect([0.01, 0.09, 0.5, 1].map(lateness)).toEqual([
      'hardly ever late',
      'late one evening in 11',
      'late every other evening',
      'late',
    ])
  })
})

describe('the meal page', () => {
  const meal = {
    name: 'Boathouse',
    serve_at: plan.serve_at,
    dishes: [{ id: 'ribs', plan_id: 1 }],
    sides: [{ id: 'slaw', key: 'slaw' }],
    hands: 1,
  }
  const kept = { id: 3, title: 'Boathouse', meal, version: 2, updated_at: at(0), missing: [] }
  const answers = {
    'GET /kitchen': [200, kitchen] as Answer,
    'GET /meal-choices': [
      200,
      { sides: [{ key: 'rice', name: 'Rice' }], bodies: {}, made: [] },
    ] as Answer,
    'GET /meals': [200, { meals: [kept], aside: [], more: '' }] as Answer,
    'GET /meals/3': [200, kept] as Answer,
    'PUT /meals/3': [200, { ...kept, version: 3 }] as Answer,
    'GET /plans': [200, { plans: [] }] as Answer,
    'GET /templates': [200, { items: [] }] as Answer,
    'POST /schedules': [200, plan] as Answer,
  }
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })
  afterEach(() => vi.unstubAllGlobals())
  const settle = async (ms = 320) => {
    await new Promise((done) => setTimeout(done, ms))
    await flushPromises()
  }

  it('opens a kept meal, tells when to begin, and lists what to do', async () => {
    serve(answers)
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    const verdict = page.get("[data-test='meal-verdict']").text()
    expect(verdict).toContain('late one evening in 11')
    const list = page.get("[data-test='meal-list']").text()
    expect(list).toContain('Nothing for your hands until')
    expect(list).toContain('Switch on: heat the broiler')
    expect(page.findAll("[data-test='meal-list'] button")).toHaveLength(8)
    expect(page.get("[data-test='meal-buy']").text()).toContain('360 g plum jam')
  })
  it('keeps a change to the version that was read, and tells one made elsewhere', async () => {
    const asked = serve({ ...answers, 'PUT /meals/3': [412, { title: 'Changed', status: 412 }] })
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    await page.get("[data-test='plate']").trigger('keydown', { key: 'ArrowRight' })
    await settle(900)
    const put = asked.find((one) => one.method === 'PUT')!
    expect(put.headers.get('If-Match')).toBe('"2"')
    const later = new Date(plan.serve_at).getTime() + 5 * 60_000
    expect((put.body as { meal: { serve_at: string } }).meal.serve_at).toBe(
      new Date(later).toISOString(),
    )
    expect(page.find("[data-test='changed']").exists()).toBe(true)
  })
  it('keeps nothing of a meal that was only begun', async () => {
    const asked = serve(answers)
    const { page } = await show(MealPage, '/meal')
    await page.get("[data-test='new-meal']").trigger('click')
    await settle(900)
    expect(asked.filter((one) => one.path === '/meals' && one.method === 'POST')).toEqual([])
    expect(page.find('[role=alert]').exists()).toBe(false)
    expect(page.text()).toContain('Put two dishes on the table')
  })
  it('takes a dish off the table, and puts it back', async () => {
    const asked = serve(answers)
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    await page.get('[aria-label="Take “Short ribs” off the table"]').trigger('click')
    expect(page.find('[aria-label="Take “Short ribs” off the table"]').exists()).toBe(false)
    await page.get("[data-test='undo-drop']").trigger('click')
    await settle(900)
    const put = asked.filter((one) => one.method === 'PUT').at(-1)!
    expect((put.body as { meal: unknown }).meal).toEqual(meal)
    expect(page.find("[data-test='undo-drop']").exists()).toBe(false)
  })
  it('stays with what could not be kept, tries again, and lets one go then', async () => {
    let away = true
    const put = () => (away ? 'away' : ([200, { ...kept, version: 3 }] as Answer))
    const asked = serve({
      ...answers,
      'PUT /meals/3': put,
      'POST /meals/3/cooks': [201, { cooks: [9] }],
    })
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    await page.get("[data-test='plate']").trigger('keydown', { key: 'ArrowRight' })
    await page.get("[data-test='all-meals']").trigger('click')
    await settle()
    expect(page.find("[data-test='meal-verdict']").exists()).toBe(true)
    expect(page.get('[role=alert]').text()).toContain('What you entered is kept here')
    await page.get("[data-test='cook-meal']").trigger('click')
    await settle()
    expect(asked.some((one) => one.path.endsWith('/cooks'))).toBe(false)
    away = false
    await page.get("[data-test='all-meals']").trigger('click')
    await settle()
    expect(page.find("[data-test='new-meal']").exists()).toBe(true)
  })
  it('deletes a meal, and keeps it anew', async () => {
    const asked = serve({ ...answers, 'DELETE /meals/3': [200, {}], 'POST /meals': [201, kept] })
    const { page } = await show(MealPage, '/meal')
    await page.get("[data-test='drop-3']").trigger('click')
    await settle()
    expect(page.text()).toContain('“Boathouse” is deleted.')
    await page.get("[data-test='undo-drop']").trigger('click')
    await settle()
    const back = asked.find((one) => one.method === 'POST' && one.path === '/meals')!
    expect((back.body as { meal: unknown }).meal).toEqual(meal)
  })
  it('tells of a meal that is not there, with another one open', async () => {
    serve(answers)
    const { page, router } = await show(MealPage, '/meal/3')
    await settle()
    await router.push('/meal/99')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('Not found')
  })
  it('shows a first plan until there is a better one, and goes on looking when asked', async () => {
    let full = () => undefined as void
    const later = new Promise<void>((done) => (full = done))
    const first = { ...plan, first: true, ready_at: at(60) }
    const asked: string[] = []
    serve(answers)
    const plain = globalThis.fetch
    vi.stubGlobal('fetch', async (input: Request) => {
      const { pathname, search } = new URL(input.url)
      if (!pathname.endsWith('/schedules')) return plain(input)
      asked.push(search)
      if (search === '?effort=full') await later
      const body = JSON.stringify(search === '?effort=first' ? first : plan)
      return new Response(body, { headers: { 'content-type': 'application/json' } })
    })
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    expect(page.get('.thinking').text()).toContain('A first plan. Looking for a better one…')
    expect(page.get("[data-test='meal-verdict']").text()).toContain(clock(at(60)))
    await page.get("[data-test='stop']").trigger('click')
    await settle()
    expect(page.get('.thinking').text()).toContain('there may be a better one')
    await page.get("[data-test='go-on']").trigger('click')
    full()
    await settle()
    expect(page.find('.thinking').exists()).toBe(false)
    expect(page.get("[data-test='meal-verdict']").text()).toContain(clock(plan.ready_at))
    expect(asked).toEqual(['?effort=first', '?effort=full', '?effort=full'])
  })
  it('tells what is in the way, and mends it with one tap', async () => {
    const says = 'The oven is wanted between ⟦2030-05-04T18:12:00+00:00⟧ and later.'
    const broken = {
      ...plan,
      feasible: false,
      tasks: [],
      reasons: [{ line: '', says }],
      repairs: [{ says: 'A second pair of hands', serve_at: null, hands: 2, dishes: {} }],
    }
    const asked = serve({ ...answers, 'POST /schedules': [200, broken] })
    const { page } = await show(MealPage, '/meal/3')
    await settle()
    expect(page.get("[data-test='meal-trouble']").text()).toContain('The oven is wanted between')
    expect(page.find("[data-test='fire-line']").exists()).toBe(false)
    await page.get("[data-test='mend']").trigger('click')
    await settle(900)
    const last = asked.filter((one) => one.path.endsWith('/schedules')).at(-1)!
    expect((last.body as { hands: number }).hands).toBe(2)
  })
})
