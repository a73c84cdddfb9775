import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  type Answer,
  at,
  broiling,
  glaze,
  live,
  NOW,
  probe,
  rehearsal,
  serve,
  show,
  step,
} from '@/__tests__/kitchen'
import type { Live } from '@/api/client'
import GateForm from './GateForm.vue'
import LiveStove from './LiveStove.vue'
import OutcomeForm from './OutcomeForm.vue'
import ProbeNote from './ProbeNote.vue'
import StepList from './StepList.vue'
import StovePage from './StovePage.vue'

const find = (name: string) => `[data-test='${name}']`
const posts = (asked: { method: string; body: unknown }[]) =>
  asked.filter((a) => a.method === 'POST').map((a) => a.body)

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['setInterval', 'clearInterval', 'setTimeout', 'clearTimeout', 'Date'],
    now: NOW,
  })
  vi.stubGlobal('indexedDB', new IDBFactory())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

enableAutoUnmount(afterEach)

const pass = async (seconds = 1) => {
  for (let i = 0; i < seconds * 2; i++) {
    await vi.advanceTimersByTimeAsync(500)
    for (let turn = 0; turn < 8; turn++) await flushPromises() // what is kept takes some turns
  }
}

/** The Stove with a cook, and a server that answers every tap with the next state. */
async function stove(cook: Live, after: Live = cook) {
  let now = cook
  const asked = serve({
    'GET /cooks/live': () => [200, { cooks: [now], suppers: [], aside: [] }],
    'GET /cooks/7/live': () => [200, now],
    'GET /cooks/7/glaze': [200, glaze],
    'POST /cooks/7/events': () => {
      now = after
      return [201, after]
    },
  })
  const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
  await pass()
  return { page, asked }
}

/** A supper that goes as planned. */
const calm = {
  id: 2,
  title: 'Supper',
  now: at(0),
  wanted_at: at(3600),
  serve_at: at(3600),
  hands: 1,
  stale: false,
  why: '',
  moved: [],
  supper_was_at: at(3600),
  next: [],
  sides: [],
  still_in: [],
  version: 4,
}

describe('a probe', () => {
  const words = (more: Partial<typeof probe>) =>
    mount(ProbeNote, { props: { probe: { ...probe, ...more } } }).text()

  it('says what it reads and when it will read what is wanted', () => {
    expect(words({})).toMatch(/^61 °C\s*80 °C about \d\d:\d\d\s*\(\d\d:\d\d to \d\d:\d\d\)$/)
    expect(words({ temp_c: 80.2 })).toContain('it is there')
    expect(words({ ready: false, at: null as never })).toContain('reckoning')
    expect(words({ at: null as never })).toContain('not by this heat')
  })

  it('says that it is silent or loose instead of a moment', () => {
    expect(words({ silent: true })).toContain('Nothing from it since')
    expect(words({ loose: true })).toContain('Is it loose?')
    expect(words({ loose: true })).not.toContain('about')
  })
})

describe('a check that a probe fills in', () => {
  const gate = {
    step: 'check',
    tender: false,
    wants_c: 63,
    rests_on: '',
    reads_c: 64.2,
    read_by: 'Probe 1',
    read_at: at(0),
  }

  it('follows the probe until something else is typed, and is told by a person', async () => {
    const form = mount(GateForm, { props: { gate } })
    const field = form.get<HTMLInputElement>(`input${find('gate-temp')}`)
    expect(field.element.value).toBe('64.2')
    expect(form.get(find('read-by')).text()).toContain('Probe 1')
    expect(form.emitted('told')).toBeUndefined()
    await form.setProps({ gate: { ...gate, reads_c: 65 } })
    expect(field.element.value).toBe('65')
    await form.setProps({ gate: { ...gate, reads_c: null as never, read_by: '' } })
    expect(field.element.value).toBe('') // what it read a while ago is not told
    expect(form.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await form.setProps({ gate })
    await field.setValue('70')
    await form.setProps({ gate: { ...gate, reads_c: 66 } })
    expect(field.element.value).toBe('70')
    expect(form.find(find('read-by')).exists()).toBe(false)
    await form.get(find('gate-yes')).trigger('click')
    expect(form.emitted('told')![0]).toMatchObject([{ step: 'check', temp_c: 70 }])
  })
})

describe('several cooks at once', () => {
  it('puts what burns first, then what waits for a hand, and tells each from there', async () => {
    const machine = step('hold', 'running', { who: 'machine', due_at: at(1800) })
    const pot = { ...live, id: 5, title: 'Pot', current: 'hold', steps: [machine] }
    const brush = { ...live, id: 6, title: 'Brush' }
    const gate = { step: 'check', tender: true, wants_c: 63, rests_on: '', read_by: '' }
    const check = {
      ...live,
      id: 8,
      title: 'Check',
      current: 'check',
      gate: { ...gate, reads_c: null, read_at: null },
    }
    const under = step('finish', 'current', { who: 'fire' })
    const broil = { ...live, title: 'Broil', current: 'finish', steps: [under], fire: broiling }
    const asked = serve({
      'GET /cooks/live': [200, { cooks: [pot, brush, check, broil], suppers: [], aside: [] }],
      'POST /cooks/6/events': [201, { ...brush, last_event: 1, current: 'come_up' }],
    })
    const { page } = await show(StovePage, '/stove')
    await pass()
    expect(page.get(find('many')).text()).toBe('3 of 4 want you now.')
    const titles = page.findAll('.title').map((one) => one.text())
    expect(titles).toEqual(['Broil', 'Brush', 'Check', 'Pot'])
    expect(page.find(find('many-done-8')).exists()).toBe(false) // a check is told on its own page
    await page.get(find('many-done-6')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'season' }])
  })
})

describe('the stove', () => {
  it('is one sentence, one clock and one wide button, and tells what is tapped', async () => {
    const next = {
      ...live,
      last_event: 1,
      current: 'come_up',
      says: 'The pot comes up to pressure.',
    }
    const { page, asked } = await stove(live, next)
    expect(page.get(find('says')).text()).toContain('Pat the 6 ribs dry')
    expect(page.findAll('.wide-button')).toHaveLength(1)
    await page.get(find('done')).trigger('click')
    await pass()
    expect(page.get(find('says')).text()).toContain('comes up')
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'season', seen: 0 }])
  })

  it('names what is to be switched on beside it, its degrees as they are written', async () => {
    const heat = step('preheat', 'upcoming', {
      who: 'machine',
      beside: true,
      label: 'Heat the broiler to 290 °C',
    })
    const { page, asked } = await stove({
      ...live,
      steps: [step('season', 'current', { begin_at: at(0) }), heat],
      side_due: ['preheat'],
    })
    const side = page.get(find('side-preheat'))
    expect(page.text()).toContain('Now: heat the broiler to 290 °C.')
    await side.trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'preheat' }])
  })

  it('has what is due beside it in the picture, a heat first, and the rest below', async () => {
    const beside = { beside: true, begin_at: at(0) }
    const mix = step('mix', 'upcoming', { ...beside, label: 'Mix the glaze' })
    const heat = step('heat', 'upcoming', { ...beside, who: 'machine', label: 'Heat the grill' })
    const both = {
      ...live,
      steps: [step('hold', 'current', { who: 'machine' }), mix, heat],
      side_due: ['mix', 'heat'],
    }
    const { page, asked } = await stove(both, { ...both, side_due: ['mix'] })
    expect(page.get('.scene').text()).toContain('Now: heat the grill.')
    expect(page.get('.scene').text()).not.toContain('mix')
    expect(page.get('.see').text()).toContain('Meanwhile: mix the glaze.')
    await page.get(find('side-heat')).trigger('click')
    await pass(0.5)
    await vi.advanceTimersByTimeAsync(200) // in all longer than any one gesture
    expect(page.get('.scene').text()).toContain('Meanwhile: mix the glaze.')
    await page.get(find('side-mix')).trigger('click') // it was meant for the heat
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'heat' }])
    await page.get(find('side-mix')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ step: 'heat' }, { kind: 'done', step: 'mix' }])
  })

  it('offers what a pot says of its pin as the one button, as of then', async () => {
    const { page, asked } = await stove({
      ...live,
      current: 'come_up',
      steps: [step('come_up', 'current', { who: 'machine' })],
      offer: {
        step: 'come_up',
        at: at(-90),
        ago_s: 90,
        says: 'Pot: its pin is up.',
        button: 'Up since',
      },
    })
    expect(page.findAll('.wide-button')).toHaveLength(1)
    expect(page.get(find('done')).text()).toMatch(/^Up since \d\d:\d\d$/)
    expect(posts(asked)).toEqual([])
    await page.get(find('done')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'come_up' }])
    expect((posts(asked)[0] as { ago_s: number }).ago_s).toBeGreaterThanOrEqual(90)
  })

  it('takes a reading by hand while the food is in its heat, but for a pot under pressure', async () => {
    const picture = { ...live.picture, shows: 'holding', vessel: 'oven' }
    const hold = step('hold', 'running', { who: 'machine', due_at: at(1800) })
    const cook = { ...live, current: 'hold', steps: [hold], picture, serve_at: at(3600) }
    let known = cook
    const asked = serve({
      'GET /cooks/live': () => [200, { cooks: [known], suppers: [], aside: [] }],
      'GET /cooks/7/live': () => [200, known],
      'POST /cooks/7/readings': () => {
        known = { ...cook, glaze_ready: true, serve_at: at(3300) }
        return [201, { taken: 1, newest_at: at(0) }]
      },
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    await page.get(find('measure')).trigger('click')
    await page.get(`input${find('measured')}`).setValue('131')
    expect(page.get('form.measure').text()).toContain('No food is that hot inside.')
    await page.get('form.measure').trigger('submit')
    await pass()
    expect(posts(asked)).toEqual([])
    await page.get(`input${find('measured')}`).setValue('61,5')
    await page.get('form.measure').trigger('submit')
    await pass()
    const one = { quantity: 'core_c', value: 61.5, device: 'by hand', site: 'thickest place' }
    expect(posts(asked)).toEqual([{ readings: [one] }])
    expect(page.find(find('measured')).exists()).toBe(false)
    expect(page.get(find('moved')).text()).toBe('Supper 5 min earlier: by what you measured.')
    const pot = await stove({ ...cook, picture: { ...picture, vessel: 'pressure' } })
    expect(pot.page.find(find('measure')).exists()).toBe(false)
  })

  it('tells a way out that was taken, where it leaves the food under its heat', async () => {
    const cook = { ...live, glaze_key: 'a', current: 'finish', fire: broiling }
    const way = { more_s: 90, chance: 0.9, risk: 0.1, reason: '' }
    const ways = [
      { ...way, key: 'calmer', do: 'Lower the rack' },
      { ...way, key: 'elsewhere', do: 'Into the air fryer' },
    ]
    const asked = serve({
      'GET /cooks/live': [200, { cooks: [cook], suppers: [], aside: [] }],
      'GET /cooks/7/live': [200, cook],
      'GET /cooks/7/glaze': [200, glaze],
      'GET /cooks/7/ways-out': [200, { stage: 'broil', ways }],
      'POST /cooks/7/events': [201, { ...cook, last_event: 1 }],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    await page.get(find('ways-out')).trigger('click')
    await pass()
    await page.get(find('took-calmer')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'rescue', change: 'calmer' }])
    expect(page.find(find('way-0')).exists()).toBe(false)
  })

  it('takes in two taps where the tray hangs', async () => {
    const { page, asked } = await stove({ ...live, fire: broiling })
    const dial = page.get(find('dial'))
    expect(dial.text()).toBe('Tray 15 cm from the element')
    expect(page.find(find('dial-7')).exists()).toBe(false)
    await dial.trigger('click')
    await page.get(find('dial-7')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'dial', step: 'broil', dial: 0.07 }])
    expect(page.find(find('dial-7')).exists()).toBe(false)
    const set = {
      value: 200,
      unit: '°C',
      low: 100,
      high: 230,
      usual: [180, 190, 210, 220],
      read: null,
    }
    const fryer = await stove({ ...live, fire: { ...broiling, dial: set } })
    expect(fryer.page.get(find('dial')).text()).toBe('Set to 200 °C')
    const hot = await stove({ ...live, fire: { ...broiling, dial: { ...set, read: 185 } } })
    const says = 'Set to 200 °C, its thermometer says 185 °C'
    expect(hot.page.get(find('dial')).text()).toBe(says)
    const came = await stove({ ...live, fire: { ...broiling, dial: null } })
    expect(came.page.find(find('dial')).exists()).toBe(false)
  })

  it('takes how food in a slow heat feels, in one tap, and says what follows', async () => {
    const feel = { step: 'braise.hold', tender: null, says: '', ready: true }
    const { page, asked } = await stove({ ...live, feel })
    expect(page.find(find('feel')).exists()).toBe(false)
    await page.get(find('felt-tough')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'felt', step: 'braise.hold', tender: false }])
    const says = 'It resisted after 2 h: about 20 min more from then on.'
    const told = await stove({ ...live, feel: { ...feel, tender: false, says, ready: false } })
    expect(told.page.get(find('feel')).text()).toBe(`${says} I reckon how long.`)
    expect(told.page.get(find('felt-tough')).classes()).toContain('told')
    expect(told.page.find(find('finds')).exists()).toBe(false)
    const feels = 'A skewer meets resistance.'
    const tried = await stove({ ...live, feel, rehearsal: { ...rehearsal, feels } })
    expect(tried.page.get(find('finds')).text()).toBe(feels)
    const closed = await stove({ ...live, feel: null })
    expect(closed.page.find(find('felt-tender')).exists()).toBe(false)
  })

  it('leaves a fire for another heat, and says what that moved', async () => {
    const leavable = [
      { stage: 'broil', gone: 'appliance' as const, name: 'oven', says: 'The oven is broken' },
    ]
    const cook = {
      ...live,
      glaze_key: 'a',
      current: 'finish',
      fire: { ...broiling, name: 'broil' },
      leavable,
    }
    const way = { key: 'elsewhere', do: 'Elsewhere', more_s: 90, chance: 1, risk: 0, reason: '' }
    const fry = { heat: 'air_fryer', name: 'air fryer', says: 'Into the air fryer' }
    const told = { ...fry, eat_at: at(4200), later_s: 600, right: 0.9 }
    const served = { ...cook, serve_at: at(3600) }
    const asked = serve({
      'GET /cooks/live': [200, { cooks: [served], suppers: [], aside: [] }],
      'GET /cooks/7/live': [200, served],
      'GET /cooks/7/glaze': [200, glaze],
      'GET /cooks/7/ways-out': [200, { stage: 'broil', ways: [way] }],
      'GET /cooks/7/elsewhere': [200, { stage: 'broil', gone: 'appliance', ways: [told] }],
      'POST /cooks/7/elsewhere': [
        201,
        { ...served, fire: null, last_event: 1, serve_at: at(4200), glaze_ready: true },
      ],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    await page.get(find('ways-out')).trigger('click')
    await pass()
    await page.get(find('took-elsewhere')).trigger('click')
    await pass()
    const section = page.get("section[aria-label='What broke']")
    expect(section.text()).toContain('Finish it elsewhere')
    expect(section.text()).toContain('10 min later')
    await page.get(find('go-air_fryer')).trigger('click')
    await pass()
    const sent = { stage: 'broil', gone: 'choice', heat: 'air_fryer', seen: live.last_event }
    expect(posts(asked)).toMatchObject([sent])
    expect(page.get(find('moved')).text()).toBe('Supper 10 min later: it goes on elsewhere.')
  })

  it('says where there is no other heat, and asks again what broke', async () => {
    const leavable = [
      { stage: 'pot', gone: 'appliance' as const, name: 'pot', says: 'The pot is broken' },
      { stage: 'wrap', gone: 'cover' as const, name: 'foil', says: 'The foil is torn' },
    ]
    const cook = { ...live, leavable }
    serve({
      'GET /cooks/live': [200, { cooks: [cook], suppers: [], aside: [] }],
      'GET /cooks/7/live': [200, cook],
      'GET /cooks/7/elsewhere': [200, { stage: 'pot', gone: 'appliance', ways: [] }],
    })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    await page.get(find('broke')).trigger('click')
    await page.get(find('broke-appliance-pot')).trigger('click')
    await pass()
    expect(page.get(find('nowhere')).text()).toContain('no other heat')
    await page.get(find('broke-other')).trigger('click')
    expect(page.find(find('broke-cover-wrap')).exists()).toBe(true)
  })

  it('tells what is still possible, and offers a trial until it is declined', async () => {
    localStorage.clear()
    const scout = { appliance: 'broiler', says: 'Nobody has watched your broiler yet.' }
    const exits = [{ do: 'finish it in an air fryer', why: '6 min', closes_at: at(1800) }]
    const { page } = await stove({ ...live, exits, scout })
    expect(page.get(find('exits')).text()).toMatch(/until \d\d:\d\d\s*finish it in an air fryer/)
    expect(page.get(find('scout')).text()).toContain('Nobody has watched')
    await page.get(find('no-scout')).trigger('click')
    await pass()
    expect(page.find(find('scout')).exists()).toBe(false)
    const plain = await stove(live)
    expect(plain.page.find(find('exits')).exists()).toBe(false)
  })

  it('draws the simulated food of a rehearsal, and shows what came of it', async () => {
    const verdicts = ['Out of the broiler at 2:05: face amber, edges dark. As it was wanted.']
    const over = { ...rehearsal, strip_key: 'broil', verdicts }
    const now = { ...live, glaze_key: 'a', fire: broiling, picture: { ...live.picture, coats: 1 } }
    const truth = { ...glaze, face: glaze.face.map(() => '#123456') }
    const answers = (cook: Live) =>
      serve({
        'GET /cooks/live': [200, { cooks: [cook], suppers: [], aside: [] }],
        'GET /cooks/7/live': [200, cook],
        'GET /cooks/7/glaze': [200, glaze],
        'GET /cooks/7/truth': [200, truth],
      })
    answers({ ...now, rehearsal: over })
    const { page } = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    expect(page.get(find('picture')).html()).toContain('#123456')
    expect(page.find(find('verdicts')).exists()).toBe(false)
    const plain = await stove(now)
    expect(plain.page.get(find('picture')).html()).not.toContain('#123456')
    answers({ ...live, current: null, finished: true, rehearsal: over })
    const ended = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    expect(ended.page.get(find('verdicts')).text()).toContain('As it was wanted.')
    // nothing is asked that the simulated food knows, unless it is to stand in the log
    expect(ended.page.find(find('save-outcome')).exists()).toBe(false)
    answers({ ...live, current: null, finished: true, rehearsal: { ...over, kept: true } })
    const logged = await show(LiveStove, '/stove/7', { props: { id: 7 } })
    await pass()
    expect(logged.page.find(find('save-outcome')).exists()).toBe(true)
  })

  it('says two minutes ago, a minute more, and undoes the tap it names', async () => {
    const hold = { ...live, current: 'come_up', last_event: 3, undoable: 3 }
    const { page, asked } = await stove({
      ...hold,
      steps: [step('come_up', 'current', { who: 'machine' })],
    })
    for (const name of ['ago', 'more', 'undo']) {
      await page.get(find(name)).trigger('click')
      await pass()
    }
    expect(posts(asked)).toMatchObject([
      { kind: 'done', ago_s: 120 },
      { kind: 'extend', seconds: 60 },
      { kind: 'undo', undoes: 3 },
    ])
  })

  it('asks whether it is under the heat, and counts from the earliest moment', async () => {
    const { page, asked } = await stove({
      ...live,
      current: 'brush',
      fire: {
        name: 'finish',
        appliance: 'broiler',
        since: at(-100),
        before_s: 0,
        assumed: true,
        put_by: 'finish.under',
        dial: null,
      },
      steps: [step('brush', 'current', { begin_at: at(-160) })],
    })
    expect(page.get(find('clock')).text()).toContain('1:40')
    expect(page.get(find('clock')).text()).toContain('since the earliest it could be')
    expect(page.findAll('.wide-button')).toHaveLength(1)
    await page.get(find('under-yes')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'finish.under' }])
  })

  it('holds a plan back until its start, and asks before it starts early', async () => {
    const waits = {
      ...live,
      current: 'wait',
      waits_s: 600,
      steps: [step('wait', 'current', { who: 'machine' })],
    }
    const { page, asked } = await stove({ ...waits, button: 'Start now' })
    await page.get(find('done')).trigger('click')
    await pass()
    expect(posts(asked)).toEqual([])
    expect(page.get('.kettle-dialog').text()).toMatch(/Now: .*As planned: /s)
    await page.get(find('start-early')).trigger('click')
    await pass()
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'wait' }])
  })

  it('shows a supper whole: its dishes and sides in the order of the plan, and what moved', async () => {
    const supper = {
      id: 2,
      title: 'Two',
      now: at(0),
      wanted_at: at(3600),
      serve_at: at(4500),
      hands: 1,
      stale: true,
      why: 'Ribs: 15 min later than planned.',
      moved: [
        { line: 'slaw', name: 'Slaw', label: 'Prepare: slaw', was_at: at(600), is_at: at(1500) },
      ],
      supper_was_at: at(3600),
      next: [
        {
          cook: null,
          line: 'slaw',
          name: 'Slaw',
          step: 'prepare',
          label: 'Prepare: slaw',
          at: at(0),
          waits_until: null,
        },
        {
          cook: 7,
          line: 'ribs',
          name: 'Ribs',
          step: 'season',
          label: 'Salt',
          at: at(60),
          waits_until: at(900),
        },
      ],
      still_in: [
        { cook: 8, line: 'whole', says: 'Still to go into the oven: Cauliflower.', ways: [] },
        {
          cook: null,
          line: 'bread',
          says: 'Still to go into the oven: Flatbread.',
          ways: [{ body: 'air_fryer', name: 'air fryer' }],
        },
      ],
      sides: [
        {
          line: 'slaw',
          name: 'Slaw',
          step: 'prepare',
          label: 'Prepare: slaw',
          who: 'hands',
          begin_at: at(0),
          due_at: at(600),
          undoable: false,
          place: 'grill',
          was: 'oven',
          was_place: 'oven',
          ways: [{ body: 'air_fryer', name: 'air fryer' }],
          calls: [],
        },
      ],
      version: 4,
    }
    const dish = { ...live, supper: 2, steps: [step('season', 'current')] }
    const calm = { ...supper, stale: false, moved: [], why: '' }
    const asked = serve({
      'GET /cooks/live': [
        200,
        {
          cooks: [
            dish,
            {
              ...dish,
              id: 8,
              current: 'hold',
              steps: [step('hold', 'current', { who: 'machine' })],
            },
          ],
          suppers: [supper],
          aside: [],
        },
      ],
      'POST /suppers/2/plan': [200, supper],
      'POST /suppers/2/sides': [200, calm],
      'POST /suppers/2/sides/elsewhere': [200, supper],
      'PUT /suppers/2': [200, calm],
    })
    const { page } = await show(StovePage, '/stove')
    await pass()
    const rows = page.findAll('ol.cooks > li').map((row) => row.attributes('data-test'))
    expect(rows).toEqual(['side-slaw', 'many-7', 'many-8'])
    expect(page.text()).toContain('It can wait until')
    expect(page.get("[data-test='supper-moved']").text()).toContain('15 min later than planned')
    expect(page.get(find('still-in')).text()).toContain('Still to go into the oven')
    expect(page.get(`${find('still-in')} a`).attributes('href')).toBe('/stove/8?broke')
    const plans = asked.filter((one) => one.path === '/suppers/2/plan')
    expect(plans.map((one) => one.body)).toEqual([{ version: 4 }])
    await page.get("[data-test='side-into-air_fryer']").trigger('click')
    await pass()
    expect(page.get(find('side-place-slaw')).text()).toBe('Cooks in the grill')
    await page.get("[data-test='side-to-slaw-air_fryer']").trigger('click')
    await pass()
    await page.get("[data-test='side-back-slaw']").trigger('click')
    await pass()
    const moves = asked.filter((one) => one.path === '/suppers/2/sides/elsewhere')
    expect(moves.map((one) => one.body)).toEqual([
      { line: 'bread', body: 'air_fryer' },
      { line: 'slaw', body: 'air_fryer' },
      { line: 'slaw', body: 'oven' },
    ])
    await page.get("[data-test='side-done-slaw']").trigger('click')
    await page.get("[data-test='supper-later']").trigger('click')
    await page.get("[data-test='supper-later-20']").trigger('click')
    await pass()
    const told = asked.filter((one) => one.method !== 'GET').map((one) => one.body)
    const tap = { line: 'slaw', kind: 'done', step: 'prepare', ago_s: 0 }
    expect(told).toContainEqual(expect.objectContaining(tap))
    expect(told).toContainEqual({ wanted_at: at(3600 + 1200), seen: false })
  })
  it('tells one change of a supper at a time, and takes back only what was taken', async () => {
    const no = { title: 'Not now', status: 409, detail: 'taps came', errors: [] }
    let answer: (one: Answer) => void = () => undefined
    const asked = serve({
      'GET /cooks/live': [
        200,
        {
          cooks: [
            { ...live, supper: 2 },
            { ...live, id: 8 },
          ],
          suppers: [calm],
          aside: [],
        },
      ],
      'PUT /suppers/2': () => new Promise<Answer>((done) => (answer = done)),
    })
    const { page } = await show(StovePage, '/stove')
    await pass()
    const later = async () => {
      await page.get("[data-test='supper-later']").trigger('click')
      await page.get("[data-test='supper-later-20']").trigger('click')
      await pass()
    }
    await later()
    expect(page.find("[data-test='supper-back']").exists()).toBe(false)
    await page.get("[data-test='supper-later']").trigger('click')
    expect(page.find("[data-test='supper-later-20']").exists()).toBe(false)
    answer([409, no])
    await pass()
    expect(page.text()).toContain('taps came')
    expect(page.find("[data-test='supper-back']").exists()).toBe(false)
    await later()
    answer([200, { ...calm, wanted_at: at(4800) }])
    await pass()
    await page.get("[data-test='supper-back']").trigger('click')
    await pass()
    const told = asked.filter((one) => one.method === 'PUT').map((one) => one.body)
    expect(told.at(-1)).toEqual({ wanted_at: at(3600), seen: false })
    expect(told.length).toBe(3)
  })
  it('stays with the whole supper while a side of it is to be done, whatever is left', async () => {
    const side = {
      line: 'slaw',
      name: 'Slaw',
      step: 'finish',
      label: 'To the table: slaw',
      who: 'hands',
      begin_at: at(0),
      due_at: at(60),
      undoable: false,
      place: '',
      was: '',
      was_place: '',
      ways: [],
      calls: [],
    }
    for (const [step, path] of [
      ['finish', '/stove'],
      [null, '/stove/7'],
    ]) {
      const supper = { ...calm, sides: [{ ...side, step }] }
      const cooks = [{ ...live, supper: 2 }]
      serve({ 'GET /cooks/live': [200, { cooks, suppers: [supper], aside: [] }] })
      const { router } = await show(StovePage, '/stove')
      await pass()
      expect(router.currentRoute.value.path).toBe(path)
    }
  })

  it('finds the cook that is on, and is cold without one', async () => {
    serve({ 'GET /cooks/live': [200, { cooks: [{ ...live, id: 9 }], suppers: [], aside: [] }] })
    const { router } = await show(StovePage, '/stove')
    await pass()
    expect(router.currentRoute.value.path).toBe('/stove/9')
    serve({
      'GET /cooks/live': [
        200,
        { cooks: [], suppers: [], aside: [{ id: 4, title: 'Old', why: 'damaged' }] },
      ],
    })
    const cold = (await show(StovePage, '/stove')).page
    await pass()
    expect(cold.text()).toContain('The stove is cold.')
    expect(cold.text()).toContain('“Old” is set aside: damaged')
  })
})

describe('parts of the stove', () => {
  const check = { step: 'check', tender: true, wants_c: 63, rests_on: '' }

  it('a check wants a reading where there is a thermometer, in the unit of the cook', async () => {
    const gate = mount(GateForm, { props: { gate: check } })
    const temp = gate.get<HTMLInputElement>(`input${find('gate-temp')}, ${find('gate-temp')} input`)
    expect(gate.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await temp.setValue('hot')
    expect(gate.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await temp.setValue('81,5')
    await gate.get(find('gate-yes')).trigger('click')
    await gate.get(find('gate-no')).trigger('click')
    expect(gate.emitted('told')).toMatchObject([
      [{ kind: 'done', step: 'check', tender: true, temp_c: 81.5 }],
      [{ kind: 'done', step: 'check', tender: false, temp_c: 81.5 }],
    ])
    const carrot = mount(GateForm, { props: { gate: { ...check, wants_c: null } } })
    expect(carrot.get(find('gate-yes')).attributes('disabled')).toBeUndefined()
  })

  it('a reading above boiling is asked about, and a check is left out with a reason alone', async () => {
    const gate = mount(GateForm, { props: { gate: check } })
    const temp = gate.get<HTMLInputElement>(`input${find('gate-temp')}, ${find('gate-temp')} input`)
    await temp.setValue('165')
    expect(gate.text()).toContain('Did you mean °F?')
    expect(gate.get(find('gate-yes')).attributes('disabled')).toBeDefined()
    await gate.get(find('meant-f')).trigger('click')
    await gate.get(find('gate-yes')).trigger('click')
    expect(gate.emitted('told')).toMatchObject([[{ temp_c: 73.9 }]])
    for (const [given, says] of [
      ['9999', 'No food is that hot inside.'],
      ['-80', 'No food is that cold inside.'],
    ] as const) {
      await gate.get(`input${find('gate-temp')}, ${find('gate-temp')} input`).setValue(given)
      expect(gate.get('[role=alert]').text()).toBe(says)
      for (const button of ['gate-yes', 'gate-no'])
        expect(gate.get(find(button)).attributes('disabled')).toBeDefined()
    }
    await gate.get(find('leave-out')).trigger('click')
    expect(gate.get(find('leave-go')).attributes('disabled')).toBeDefined()
    await gate.get(`input${find('leave-why')}, ${find('leave-why')} input`).setValue('no battery')
    await gate.get('form').trigger('submit')
    expect(gate.emitted('told')!.at(-1)).toMatchObject([{ kind: 'skip', reason: 'no battery' }])
  })

  it('confirmed, estimated and unknown steps differ in words and in drawing, not only in colour', () => {
    const states = ['confirmed', 'estimated', 'unknown', 'current', 'upcoming']
    const list = mount(StepList, {
      props: {
        steps: states.map((s) =>
          step(s, s, { end_at: s === 'confirmed' || s === 'estimated' ? at(60) : null }),
        ),
      },
    })
    const drawn = states.map((s) => list.get(`${find(`step-${s}`)} svg`).html())
    expect(new Set(drawn).size).toBe(states.length)
    const words = states.slice(0, 3).map((s) => list.get(find(`step-${s}`)).text())
    expect(words.map((t) => /you said so|estimated|nobody said/.exec(t)?.[0])).toEqual([
      'you said so',
      'estimated',
      'nobody said',
    ])
  })

  it('an outcome is saved with what is said of it, and the note', async () => {
    const asked = serve({ 'PUT /cooks/7/outcome': [200, {}] })
    const { page, router } = await show(OutcomeForm, '/stove/7', {
      props: { cook: { ...live, finished: true } },
    })
    expect(page.get(find('save-outcome')).attributes('disabled')).toBeDefined()
    await page.get(`${find('colour-amber')} input`).setValue(true)
    expect(page.get(find('save-outcome')).attributes('disabled')).toBeUndefined()
    await page.get(`${find('tenderness-falls')} input`).setValue(true)
    await page.get('textarea').setValue('Thinner coat.')
    await page.get(find('save-outcome')).trigger('click')
    await pass()
    expect(asked.find((a) => a.method === 'PUT')!.body).toEqual({
      tenderness: 'falls',
      colour: 'amber',
      note: 'Thinner coat.',
    })
    expect(router.currentRoute.value.path).toBe('/log/7')
  })
})
