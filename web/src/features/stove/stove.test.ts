import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { at, glaze, live, NOW, serve, show, step, type Answer } from '@/__tests__/kitchen'
import FireOverlay from './FireOverlay.vue'
import GateForm from './GateForm.vue'
import LiveStove from './LiveStove.vue'
import OutcomeForm from './OutcomeForm.vue'
import StepList from './StepList.vue'
import StovePage from './StovePage.vue'

const find = (name: string) => `[data-test='${name}']`

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['setInterval', 'clearInterval', 'setTimeout', 'clearTimeout', 'Date'],
    now: NOW,
  })
  localStorage.clear()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const second = async (n = 1) => {
  await vi.advanceTimersByTimeAsync(n * 1000)
  await flushPromises()
}

describe('the stove', () => {
  it('is one sentence, one clock and one wide button, and tells what is tapped', async () => {
    const asked = serve({
      'GET /cooks/7/live': [200, live],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': [
        201,
        {
          ...live,
          last_event: 1,
          current: 'come_up',
          says: 'The pot comes up to pressure.',
          button: 'Pin is up',
        },
      ],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    expect(page.get(find('says')).text()).toContain('Pat the 6 ribs dry')
    expect(page.findAll('.wide-button')).toHaveLength(1)
    await page.get(find('done')).trigger('click')
    await flushPromises()
    expect(page.get(find('says')).text()).toContain('comes up')
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { kind: 'done', step: 'season', ago_s: 0 },
    ])
  })

  it('says two minutes ago, a minute more and undo', async () => {
    const asked = serve({
      'GET /cooks/7/live': [200, { ...live, last_event: 3 }],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': [201, { ...live, last_event: 3 }],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    for (const name of ['ago', 'more', 'undo']) {
      await page.get(find(name)).trigger('click')
      await flushPromises()
    }
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { kind: 'done', ago_s: 120 },
      { kind: 'extend', seconds: 60 },
      { kind: 'undo' },
    ])
  })

  it('keeps a tap while the server is away and sends it later with its age', async () => {
    let away = true
    const answer = (): Answer =>
      away ? 'away' : [201, { ...live, last_event: 1, current: 'come_up' }]
    const asked = serve({
      'GET /cooks/7/live': [200, live],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': answer,
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await page.get(find('done')).trigger('click')
    await flushPromises()
    await second(20)
    expect(JSON.parse(localStorage.getItem('kettle-unsent-7')!)).toHaveLength(1) // a reload would not lose it
    away = false
    await second(2)
    const sent = asked
      .filter((a) => a.method === 'POST')
      .map((a) => a.body as { ago_s: number; step: string })
    expect(localStorage.getItem('kettle-unsent-7')).toBeNull()
    expect(sent.at(-1)!.step).toBe('season')
    expect(sent.at(-1)!.ago_s).toBeGreaterThan(18)
    expect(sent.at(-1)!.ago_s).toBeLessThan(25)
  })

  it('asks whether it is under the heat, and runs the calls from the earliest moment', async () => {
    const assumed = {
      ...live,
      current: 'brush',
      says: 'It may be under the heat.',
      fire_since: at(-100),
      fire_assumed: true,
      steps: [step('brush', 'current', { begin_at: at(-160) })],
    }
    const asked = serve({
      'GET /cooks/7/live': [200, assumed],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': [201, assumed],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    expect(page.get(find('clock')).text()).toContain('1:40')
    expect(page.get(find('clock')).text()).toContain('since the earliest it could be')
    await page.get(find('under-yes')).trigger('click')
    await flushPromises()
    expect(asked.at(-1)!.body ?? asked.find((a) => a.method === 'POST')!.body).toMatchObject({
      kind: 'done',
      step: 'under',
    })
  })

  it('takes the whole screen when the window closes, and asks whether it is out', async () => {
    const burning = {
      ...live,
      current: 'finish',
      says: 'Under the broiler.',
      button: 'It is out',
      fire_since: at(-250),
      steps: [step('finish', 'current', { who: 'fire', begin_at: at(-250) })],
    }
    const asked = serve({
      'GET /cooks/7/live': [200, burning],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': [201, burning],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await second(1)
    expect(page.get(find('overlay')).text()).toContain('Out now.')
    expect(page.get(find('overlay')).text()).toContain('Broiler off?')
    await page.get(`${find('overlay')} .wide-button`).trigger('click')
    await flushPromises()
    expect(asked.find((a) => a.method === 'POST')!.body).toMatchObject({
      kind: 'done',
      step: 'finish',
    })
    await page.get(`${find('overlay')} .plain-button`).trigger('click')
    expect(page.find(find('overlay')).exists()).toBe(false)
  })

  it('shows a refusal and goes on', async () => {
    const no = {
      title: 'This cannot be used',
      status: 422,
      detail: 'ago_s: accepted is 0 to 4 s',
      errors: [],
    }
    serve({
      'GET /cooks/7/live': [200, live],
      'GET /cooks/7/glaze': [200, glaze],
      'POST /cooks/7/events': [422, no],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await page.get(find('ago')).trigger('click')
    await flushPromises()
    expect(page.get('[role=alert]').text()).toContain('accepted is 0 to 4 s')
    expect(page.find(find('done')).exists()).toBe(true)
  })

  it('finds the cook that is on, and is cold without one', async () => {
    serve({
      'GET /cooks': [
        200,
        {
          cooks: [
            { id: 4, ended_at: at(-10) },
            { id: 9, ended_at: null },
          ],
        },
      ],
    })
    const { router } = await show(StovePage, '/stove')
    expect(router.currentRoute.value.path).toBe('/stove/9')
    serve({ 'GET /cooks': [200, { cooks: [] }] })
    expect((await show(StovePage, '/stove')).page.text()).toContain('The stove is cold.')
  })
})

describe('parts of the stove', () => {
  it('a gate wants a reading where there is a thermometer, in the unit of the cook', async () => {
    const gate = mount(GateForm, { props: { wantsC: 63, failed: '' } })
    expect(gate.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await gate.get(find('gate-temp')).setValue('hot')
    expect(gate.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await gate.get(find('gate-temp')).setValue('81,5')
    await gate.get(find('gate-yes')).trigger('click')
    await gate.get(find('gate-no')).trigger('click')
    expect(gate.emitted('told')).toEqual([
      [{ tender: true, temp_c: 81.5 }],
      [{ tender: false, temp_c: 81.5 }],
    ])
    const carrot = mount(GateForm, { props: { wantsC: null, failed: '' } })
    expect(carrot.get(find('gate-yes')).attributes('disabled')).toBeUndefined()
  })

  it('confirmed, estimated and unknown steps differ in words and in drawing, not only in colour', () => {
    const states = ['confirmed', 'estimated', 'unknown', 'current', 'upcoming']
    const list = mount(StepList, {
      props: {
        steps: states.map((s) =>
          step(s, s, { end_at: s === 'confirmed' || s === 'estimated' ? at(60) : null }),
        ),
        now: NOW,
      },
    })
    const drawn = states.map((s) => list.get(`${find(`step-${s}`)} svg`).html())
    expect(new Set(drawn).size).toBe(states.length)
    expect(
      states
        .map((s) => list.get(find(`step-${s}`)).text())
        .slice(0, 3)
        .map((t) => /you said so|estimated|nobody said/.exec(t)?.[0]),
    ).toEqual(['you said so', 'estimated', 'nobody said'])
    const gate = mount(StepList, {
      props: { steps: [step('check', 'unknown', { who: 'gate' })], now: NOW },
    })
    expect(gate.text()).toContain('not passed')
  })

  it('the overlay names the appliance that must be off', () => {
    const fryer = mount(FireOverlay, {
      props: {
        call: { at_s: 200, level: 'out', says: 'Out now.' },
        underS: 205,
        appliance: 'air fryer',
      },
    })
    expect(fryer.text()).toContain('Air fryer off?')
    expect(fryer.text()).toContain('3:25')
  })

  it('an outcome is saved once all three are said, with the note', async () => {
    const asked = serve({ 'PUT /cooks/7/outcome': [200, {}] })
    const { page, router } = await show(OutcomeForm, '/stove/7', {
      props: { live: { ...live, finished: true } },
    })
    expect(page.get(find('save-outcome')).attributes('disabled')).toBeDefined()
    for (const name of ['tenderness-falls', 'crust-sticky', 'colour-amber'])
      await page.get(find(name)).trigger('click')
    await page.get(find('note')).setValue('Thinner coat.')
    await page.get(find('save-outcome')).trigger('click')
    await flushPromises()
    expect(asked[0]!.body).toEqual({
      tenderness: 'falls',
      crust: 'sticky',
      colour: 'amber',
      note: 'Thinner coat.',
    })
    expect(router.currentRoute.value.path).toBe('/log/7')
  })
})
