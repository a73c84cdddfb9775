import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import {
  at,
  live,
  NOW,
  probe,
  rehearsal,
  serve,
  show,
  step,
  type Answer,
} from '@/__tests__/kitchen'
import type { Live, Supper } from '@/api/client'
import {
  dueRings,
  hushKey,
  loudest,
  screenCall,
  staleRings,
  urgency,
  withSides,
  type Alarm,
} from './alarms'
import CallScreen from './CallScreen.vue'
import { clockWords, mainClock } from './clock'
import { fireSeconds } from './fire'
import LiveBar from './LiveBar.vue'
import { cookTime, wallTime } from './pace'
import { fateOf, pause } from './sending'
import { openShelf, TabShelf, takeOldTaps } from './shelf'
import { useLive } from './useLive'

const alarm = (level: string, seconds: number, more: Partial<Alarm> = {}): Alarm => ({
  id: `finish/${level}`,
  at: at(seconds),
  level,
  says: `${level}!`,
  every_s: 0,
  screen: false,
  ...more,
})
const moment = (seconds: number) => new Date(NOW.getTime() + seconds * 1000)
const cook = (alarms: Alarm[], more: Partial<Live> = {}): Live => ({ ...live, alarms, ...more })
const burning = (alarms: Alarm[], more: Partial<Live> = {}) =>
  cook(alarms, {
    current: 'finish',
    button: 'It is out',
    steps: [step('finish', 'current', { who: 'fire' })],
    fire: {
      name: 'finish',
      appliance: 'broiler',
      since: at(-60),
      before_s: 30,
      assumed: false,
      put_by: '',
      dial: null,
    },
    ...more,
  })

describe('the clock of a rehearsal', () => {
  it('outruns the one on the wall, and both tell the same moment', () => {
    const fast = cook([], { rehearsal })
    expect(cookTime(fast, moment(30))).toEqual(moment(600))
    expect(wallTime(fast, moment(600))).toEqual(moment(30))
    expect(cookTime(cook([]), moment(30))).toEqual(moment(30))
  })

  it('is the one that the heat, the big figure and the calls go by', () => {
    const fast = burning([alarm('out', 100, { every_s: 3 })], { rehearsal })
    expect(fireSeconds(fast, moment(3))).toBe(150)
    expect(mainClock(fast, undefined, moment(3))).toBe('2:30')
    expect(dueRings([fast], moment(4))).toEqual([])
    expect(dueRings([fast], moment(6))).toHaveLength(1)
    // it repeats by the clock on the wall: nobody can hear twenty a second
    expect(dueRings([fast], moment(7))[0]!.key).toBe(dueRings([fast], moment(6))[0]!.key)
    expect(dueRings([fast], moment(9))[0]!.key).not.toBe(dueRings([fast], moment(6))[0]!.key)
  })
})

describe('a call of a rehearsal', () => {
  it('gives way to any of a cook in earnest', () => {
    const fast = burning([alarm('out', 0, { screen: true })], { rehearsal, id: 8 })
    const real = burning([alarm('full', 0, { screen: true })])
    expect(screenCall([fast, real], moment(5), new Set())!.cook).toBe(7)
    expect(screenCall([fast], moment(5), new Set())!.cook).toBe(8)
    const rings = dueRings([fast, real], moment(5))
    expect(loudest(rings, new Set(), new Set())!.cook).toBe(7)
  })
})

describe('alarms', () => {
  it('ring once each, the loudest first, and again only where they repeat', () => {
    const cooks = [cook([alarm('look', 10), alarm('out', 20), alarm('due', 5, { every_s: 30 })])]
    expect(dueRings(cooks, moment(4))).toEqual([])
    expect(loudest(dueRings(cooks, moment(21)), new Set(), new Set())!.alarm.level).toBe('out')
    const rung = new Set(dueRings(cooks, moment(21)).map((r) => r.key))
    expect(loudest(dueRings(cooks, moment(34)), rung, new Set())).toBeUndefined()
    expect(loudest(dueRings(cooks, moment(36)), rung, new Set())!.alarm.level).toBe('due')
  })

  it('are hushed by level: a nearer one is heard', () => {
    const cooks = [
      burning([alarm('closer', 0, { screen: true }), alarm('out', 20, { screen: true })]),
    ]
    const hushed = new Set([hushKey(7, cooks[0]!.alarms[0]!)])
    expect(screenCall(cooks, moment(1), new Set())!.alarm.level).toBe('closer')
    expect(screenCall(cooks, moment(1), hushed)).toBeUndefined()
    expect(screenCall(cooks, moment(21), hushed)!.alarm.level).toBe('out')
    hushed.add(hushKey(7, cooks[0]!.alarms[1]!))
    expect(screenCall(cooks, moment(300), hushed)).toBeUndefined()
  })

  it('are over with the cook, and what is long past when a page opens does not ring', () => {
    const alarms = [alarm('out', 0), alarm('due', 0, { every_s: 60 })]
    expect(dueRings([cook(alarms, { ended_at: at(1) })], moment(5))).toEqual([])
    expect(staleRings([cook(alarms)], moment(10))).toEqual([])
    expect(staleRings([cook(alarms)], moment(25))).toEqual(['7/finish/out'])
  })

  it('are those of the sides too, once each, whichever dish is over', () => {
    const calls = [{ ...alarm('due', 5), id: 'rice/cook-due', says: 'Rice: its time is up.' }]
    const supper = { id: 3, sides: [{ line: 'rice', calls }] } as unknown as Supper
    const dishes = [cook([], { id: 7, supper: 3 }), cook([], { id: 8, supper: 3 })]
    const rings = (cooks: Live[], seconds: number) =>
      dueRings(withSides(cooks, [supper]), moment(seconds))
    expect(rings(dishes, 4)).toEqual([])
    const [ring] = rings(dishes, 6)
    expect(ring!.alarm.says).toBe('Rice: its time is up.')
    const later = [{ ...dishes[0]!, ended_at: at(7) }, dishes[1]!]
    expect(rings(later, 8).map((one) => one.key)).toEqual([ring!.key])
    expect(rings([dishes[1]!], 8).map((one) => one.key)).toEqual([ring!.key])
    expect(rings([cook([], { supper: null })], 8)).toEqual([])
    expect(rings([cook([], { supper: 3, rehearsal })], 1)[0]!.rehearsed).toBe(true)
  })

  it('colour the bar from the moment it gets near', () => {
    const one = burning([alarm('look', 0), alarm('closer', 10), alarm('full', 20)])
    expect([5, 15, 25].map((s) => urgency(one, moment(s)))).toEqual(['', 'closer', 'full'])
  })
})

describe('the clock of a step', () => {
  it('is the time under the heat, with what the heat before it counted', () => {
    const one = burning([], { out: { sign: 'amber', seen_s: 60, from_s: 115, to_s: 134 } })
    expect(mainClock(one, one.steps[0], moment(0))).toBe('1:30')
    expect(clockWords(one, one.steps[0], moment(0))).toBe('under the heat. Out in 0:25 to 0:44')
    expect(clockWords(one, one.steps[0], moment(30))).toBe('under the heat. Out now')
  })
  it('is what is left of a machine, and says so when it is over', () => {
    const hold = step('hold', 'current', { who: 'machine', due_at: at(90) })
    expect(mainClock(live, hold, moment(0))).toBe('1:30')
    expect(clockWords(live, hold, moment(100))).toContain('is it so?')
  })
})

describe('a tap', () => {
  it('is dropped on a definite refusal alone', () => {
    const fates = [0, 408, 413, 425, 429, 500, 503, 507].map((status) =>
      fateOf({ status } as never),
    )
    expect(new Set(fates)).toEqual(new Set(['again']))
    expect([404, 409, 422].map((status) => fateOf({ status } as never))).toEqual(
      Array(3).fill('refused'),
    )
    expect(fateOf(undefined)).toBe('kept')
    expect([0, 1, 9].map(pause)).toEqual([1000, 2000, 30_000])
  })

  it('is kept in a shelf that all tabs share, in its order, until it is dropped', async () => {
    vi.stubGlobal('indexedDB', new IDBFactory())
    const [mine, other] = [await openShelf(), await openShelf()]
    for (const id of ['b', 'a'])
      await mine.put({ id, cook: 7, body: { kind: 'done' } as never, tappedAt: at(0) })
    expect((await other.taps()).map((tap) => tap.id)).toEqual(['b', 'a'])
    await other.drop('b')
    await other.refuse({ id: 'b', cook: 7, why: 'too late' })
    expect((await mine.taps()).map((tap) => tap.id)).toEqual(['a'])
    expect(await mine.refusals()).toHaveLength(1)
    await mine.forget('b')
    expect(await other.refusals()).toEqual([])
    vi.unstubAllGlobals()
  })

  it('is kept in the tab where the browser keeps nothing, and old ones are taken over', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('forbidden')
      },
    })
    expect(await openShelf()).toBeInstanceOf(TabShelf)
    vi.unstubAllGlobals()
    localStorage.setItem('kettle-unsent-7', JSON.stringify([{ body: { kind: 'done' }, at: 5 }]))
    localStorage.setItem('kettle-unsent-8', '{ damaged')
    expect(takeOldTaps(localStorage, () => 'new')).toEqual([
      { id: 'new', cook: 7, body: { kind: 'done' }, tappedAt: '1970-01-01T00:00:00.005Z' },
    ])
    expect(localStorage.length).toBe(0)
  })
})

enableAutoUnmount(afterEach)

const Watcher = defineComponent({
  setup() {
    const store = useLive()
    void store.watch()
    return () => h('div', [h(LiveBar), h(CallScreen)])
  },
})

describe('cooks under way', () => {
  beforeEach(() => {
    vi.useFakeTimers({
      now: NOW,
      toFake: ['setInterval', 'clearInterval', 'setTimeout', 'clearTimeout', 'Date'],
    })
    vi.stubGlobal('indexedDB', new IDBFactory())
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    document.body.innerHTML = ''
  })
  const run = async (seconds: number) => {
    for (let i = 0; i < seconds * 2; i++) {
      await vi.advanceTimersByTimeAsync(500)
      for (let turn = 0; turn < 8; turn++) await flushPromises() // what is kept takes some turns
    }
  }
  const posts = (asked: { method: string; body: unknown }[]) =>
    asked.filter((a) => a.method === 'POST').map((a) => a.body as Record<string, unknown>)

  it('carries a number and its own moment through a server that is away', async () => {
    let answer: Answer = 'away'
    const asked = serve({
      'GET /cooks/live': () => [
        200,
        { cooks: [{ ...live, now: new Date().toISOString() }], suppers: [], aside: [] },
      ],
      'POST /cooks/7/events': () => answer,
    })
    await show(Watcher)
    await run(2)
    const store = useLive()
    await store.tell(7, { kind: 'done', step: 'season' } as never)
    answer = [507, { title: 'Full', status: 507, detail: 'the disk is full', errors: [] }]
    await run(3)
    answer = [201, { ...live, last_event: 1, current: 'come_up' }]
    await run(8)
    const sent = posts(asked)
    expect(sent.length).toBeGreaterThan(2)
    expect(new Set(sent.map((b) => b.id)).size).toBe(1)
    expect(new Set(sent.map((b) => b.tapped_at)).size).toBe(1)
    expect(store.waiting).toBe(0)
  })

  it('keeps a tap on a side through a server that is away, once', async () => {
    let answer: Answer = 'away'
    const asked = serve({
      'GET /cooks/live': () => [
        200,
        { cooks: [{ ...live, now: new Date().toISOString() }], suppers: [], aside: [] },
      ],
      'POST /suppers/3/sides': () => answer,
    })
    await show(Watcher)
    await run(2)
    const store = useLive()
    const rice = { supper: 3, line: 'rice' }
    await store.tellSide(rice, 'done', 'cook')
    await run(2)
    await store.tellSide(rice, 'done', 'cook') // nothing seemed to happen
    expect(store.waiting).toBe(1)
    answer = [200, { id: 3 }]
    await run(8)
    const sent = posts(asked)
    expect(new Set(sent.map((b) => b.id)).size).toBe(1)
    expect(sent.at(-1)).toMatchObject({ line: 'rice', kind: 'done', step: 'cook' })
    expect(store.waiting).toBe(0)
    answer = [409, { title: 'Not now', status: 409, detail: 'told already: Rice', errors: [] }]
    await store.tellSide(rice, 'done', 'cook')
    await run(1)
    expect(store.refusals.map((r) => [r.side?.line, r.why])).toEqual([
      ['rice', 'told already: Rice'],
    ])
  })

  it('takes a second gesture within the guard for the same one', async () => {
    const asked = serve({
      'GET /cooks/live': [200, { cooks: [live], suppers: [], aside: [] }],
      'POST /cooks/7/events': [201, { ...live, last_event: 1, current: 'come_up' }],
    })
    await show(Watcher)
    await run(2)
    const store = useLive()
    for (let i = 0; i < 5; i++) void store.tell(7, { kind: 'done', step: 'season' } as never)
    await run(1)
    expect(posts(asked)).toHaveLength(1)
  })

  it('says what a tap moved where a look brings it before its own answer', async () => {
    let known: Live = { ...live, serve_at: at(3600) }
    serve({
      'GET /cooks/live': () => [200, { cooks: [known], suppers: [], aside: [] }],
      'POST /cooks/7/events': async () => {
        known = { ...known, last_event: 1, serve_at: at(4200), glaze_ready: true }
        await useLive().refresh()
        return [201, known]
      },
    })
    await show(Watcher)
    await run(2)
    const store = useLive()
    await store.tell(7, { kind: 'felt', step: 'hold', tender: false } as never)
    await run(1)
    expect(store.movedOf(7)).toBe('Supper 10 min later: by how it feels.')
    await run(15)
    expect(store.movedOf(7)).toBe('')
  })

  it('says what a reading by hand moved, once it is reckoned with', async () => {
    const waits = { ...probe, ready: false }
    let known: Live = { ...live, serve_at: at(3600) }
    serve({ 'GET /cooks/live': () => [200, { cooks: [known], suppers: [], aside: [] }] })
    await show(Watcher)
    await run(2)
    const store = useLive()
    store.sayMove(7, 'measured', store.cookOf(7))
    known = { ...known, probe: waits }
    await run(3)
    expect(store.movedOf(7)).toBe('')
    known = { ...known, probe, serve_at: at(3000) }
    await run(3)
    expect(store.movedOf(7)).toBe('Supper 10 min earlier: by what you measured.')
  })

  it('keeps a refusal until it was read', async () => {
    serve({
      'GET /cooks/live': [200, { cooks: [live], suppers: [], aside: [] }],
      'POST /cooks/7/events': [
        409,
        { title: 'Too late', status: 409, detail: 'the check is open', errors: [] },
      ],
    })
    await show(Watcher)
    await run(2)
    const store = useLive()
    await store.tell(7, { kind: 'done', step: 'season' } as never)
    await run(1)
    expect(store.refusals.map((r) => r.why)).toEqual(['the check is open'])
    expect(store.waiting).toBe(0)
    await store.forget(store.refusals[0]!.id)
    expect(store.refusals).toEqual([])
  })

  it('calls for a rehearsal on its own page alone', async () => {
    const out = [alarm('out', 0, { screen: true, says: 'Out now.' })]
    serve({
      'GET /cooks/live': [200, { cooks: [burning(out, { rehearsal })], suppers: [], aside: [] }],
    })
    await show(Watcher, '/log')
    await run(2)
    const store = useLive()
    expect(store.call).toBeUndefined()
    store.watched = 7
    expect(store.call!.alarm.says).toBe('Out now.')
  })

  it('rings once for a side of a supper', async () => {
    const calls = [{ ...alarm('due', 1), id: 'rice/cook-due', says: 'Rice: its time is up.' }]
    const supper = { id: 3, stale: false, sides: [{ line: 'rice', calls }] }
    const dish = cook([], { supper: 3 })
    serve({ 'GET /cooks/live': [200, { cooks: [dish], suppers: [supper], aside: [] }] })
    await show(Watcher, '/log')
    const ring = vi.spyOn(useLive().sound, 'ring')
    await run(4)
    expect(ring.mock.calls).toEqual([['due', 'Rice: its time is up.']])
  })

  it('calls on the whole screen in every room, and its button ends the call', async () => {
    let now = burning([alarm('out', 0, { screen: true, says: 'Out now.' })])
    const rested = { ...live, last_event: 4, current: 'rest', steps: [step('rest', 'current')] }
    const asked = serve({
      'GET /cooks/live': () => [200, { cooks: [now], suppers: [], aside: [] }],
      'POST /cooks/7/events': () => {
        now = rested
        return [201, rested]
      },
    })
    const { page } = await show(Watcher, '/log', { attachTo: document.body })
    await run(2)
    const screen = () => document.querySelector<HTMLElement>('.call-screen')
    expect(screen()!.textContent).toContain('Out now.')
    expect(page.get("[data-test='live-7']").classes()).toContain('out')
    document.querySelector<HTMLElement>("[data-test='call-done']")!.click()
    await run(1)
    expect(posts(asked)).toMatchObject([{ kind: 'done', step: 'finish' }])
    expect(useLive().call).toBeUndefined()
    expect(page.get("[data-test='live-7']").classes()).not.toContain('out')
  })
})
