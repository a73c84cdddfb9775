import { computed, ref, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { v4 as newId } from 'uuid'
import {
  api,
  ask,
  fetched,
  type EventBody,
  type Leaving,
  type Live,
  type LiveList,
  type Problem,
  type Supper,
  type SideMove,
} from '@/api/client'
import { dueRings, hushKey, loudest, screenCall, staleRings, withSides, type Alarm } from './alarms'
import { movedBy, reckoned, type Moved, type Tapped } from './moved'
import { cookTime, wallTime } from './pace'
import { alone, fateOf, pause } from './sending'
import { openShelf, takeOldTaps, type OfSide, type Refusal, type Shelf, type Tap } from './shelf'
import { useSound } from './sound'

const IDLE_MS = 10_000
const LIVE_MS = 1000
const PATIENCE_MS = 4000 // for the first answer
const GUARD_MS = 600 // one gesture is one step: what follows this fast is the same finger
const PLAN_MS = 3000
const KEY = ['live']

/** Cooks under way, wherever the cook is in the application: their state, taps and alarms. */
export const useLive = defineStore('live', () => {
  const client = useQueryClient()
  const now = shallowRef(new Date())
  const waiting = ref(0)
  const settled = ref(false) // the server has answered, or is away
  const unsent = ref<Problem>()
  const refusals = ref<Refusal[]>([])
  const moves = ref(new Map<number, Moved>())
  const hushed = ref(new Set<string>())
  const sound = useSound()
  const rung = new Set<string>()
  const asked = new Map<number, { before: Live | undefined; kind: Tapped }>()
  const stoodAt = new Map<string, Live | undefined>() // by tap: what was known when it was sent
  const stepSince = new Map<number, number>()
  const sideSince = new Map<string, number>()
  let shelf: Promise<Shelf> | undefined
  let offset = 0
  let bell = true
  let tries = 0
  let sendAfter = 0
  let planAfter = 0

  const query = useQuery<LiveList>({
    queryKey: KEY,
    queryFn: async ({ signal }) => {
      try {
        const found = await fetched(api.GET('/api/v1/cooks/live', { signal }))
        found.cooks.forEach(clockOf)
        const cooks = found.cooks.map(newest)
        cooks.forEach(weigh)
        begin(withSides(cooks, found.suppers))
        found.suppers.filter((one) => one.stale).forEach((one) => void planRest(one))
        return { ...found, cooks }
      } catch (away) {
        begin(calling.value)
        throw away
      }
    },
    refetchInterval: ({ state }) => (state.data?.cooks.length || waiting.value ? LIVE_MS : IDLE_MS),
    refetchIntervalInBackground: true,
    retry: false,
  })
  const kept = computed<Live[]>(() => query.data.value?.cooks ?? [])
  // What an earlier page left is shown only once the server did not answer: it may be over.
  const cooks = computed(() => (settled.value ? kept.value : []))
  const aside = computed(() => query.data.value?.aside ?? [])
  const suppers = computed(() => (settled.value ? (query.data.value?.suppers ?? []) : []))
  /** What was kept, with what the sides call for. */
  const calling = computed(() => withSides(kept.value, query.data.value?.suppers ?? []))
  const underWay = computed(() => cooks.value.filter((cook) => !cook.ended_at))
  const problem = computed(() => (query.error.value as Problem | null) ?? unsent.value)
  const known = computed(() => settled.value && query.data.value !== undefined)
  /** The cook whose page is open. A rehearsal calls nowhere else. */
  const watched = ref<number>()
  const heard = computed(() =>
    (settled.value ? calling.value : []).filter(
      (cook) => !cook.rehearsal || cook.id === watched.value,
    ),
  )
  const call = computed(() => screenCall(heard.value, now.value, hushed.value))
  const cookOf = (id: number) => cooks.value.find((cook) => cook.id === id)
  const served = () => new Date(Date.now() + offset)
  const opened = () => (shelf ??= openShelf())

  /** What was long past when the page opened is over; from the first answer, or none, on it rings. */
  function begin(found: Live[]) {
    if (!settled.value) staleRings(found, served()).forEach((key) => rung.add(key))
    settled.value = true
  }

  function clockOf(cook: Live) {
    offset = wallTime(cook, new Date(cook.now)).getTime() - Date.now()
  }

  /** What is known of a cook, where that is newer than an answer that was overtaken. */
  function newest(next: Live): Live {
    const kept = client.getQueryData<LiveList>(KEY)?.cooks
    const before = kept?.find((cook) => cook.id === next.id)
    if (before && before.last_event > next.last_event) return before
    if (settled.value && before && before.current !== next.current)
      stepSince.set(next.id, Date.now())
    return next
  }

  /** Take an answer about one cook into the list of all. */
  function taken(next: Live) {
    clockOf(next)
    const found = newest(next)
    const others = kept.value.filter((cook) => cook.id !== next.id)
    const all = next.ended_at ? others : [...others, found].sort((a, b) => b.id - a.id)
    client.setQueryData(KEY, { cooks: all, suppers: suppers.value, aside: aside.value })
    client.setQueryData(['cook', next.id, 'live'], found)
  }

  /** Take the answer to a tap, and say what it moved from what was known before it was sent. */
  function note(next: Live, kind: Tapped, before: Live | undefined) {
    sayMove(next.id, kind, before)
    weigh(next)
    taken(next)
  }
  /** Say what was moved by something told, from the next answer that has reckoned with it. */
  function sayMove(id: number, kind: Tapped, before: Live | undefined) {
    moves.value.delete(id)
    asked.set(id, { before, kind })
  }
  function weigh(next: Live) {
    const tapped = asked.get(next.id)
    if (!tapped || !reckoned(next)) return
    asked.delete(next.id)
    const moved = movedBy(tapped.before, next, tapped.kind, Date.now())
    if (moved) moves.value.set(next.id, moved)
  }
  /** What the last tap moved, while that is news. */
  const movedOf = (id: number) => {
    const found = moves.value.get(id)
    return found && now.value.getTime() - offset < found.until ? found.says : ''
  }

  /** A supper that drifts is planned anew: by one page at a time, and not again at once. */
  async function planRest(supper: Supper) {
    if (Date.now() < planAfter) return
    planAfter = Date.now() + PLAN_MS
    const path = { id: supper.id }
    await takenSupper(
      ask(() =>
        api.POST('/api/v1/suppers/{id}/plan', {
          params: { path },
          body: { version: supper.version },
        }),
      ),
    )
  }
  /** Take what was answered about a supper; its dishes are asked for anew. Whether it was taken. */
  async function takenSupper(asked: Promise<{ data?: Supper; problem?: Problem }>) {
    const { data, problem: refused } = await asked
    if (data) {
      const others = suppers.value.filter((one) => one.id !== data.id)
      const list = query.data.value
      if (list) client.setQueryData(KEY, { ...list, suppers: [...others, data] })
    }
    void refresh()
    return refused
  }

  /** A side goes into something else, or back. */
  const moveSide = (side: OfSide, body: string) =>
    takenSupper(
      ask(() =>
        api.POST('/api/v1/suppers/{id}/sides/elsewhere', {
          params: { path: { id: side.supper } },
          body: { line: side.line, body } as SideMove,
        }),
      ),
    )

  /** The moment by the clock of a cook. */
  const nowOf = (cook: Live | undefined) => cookTime(cook, now.value)

  const refresh = () => query.refetch()

  /** Whether a gesture comes so soon after a change of step that it is the same one. */
  function tooSoon(cook: number): boolean {
    return Date.now() - (stepSince.get(cook) ?? 0) < GUARD_MS
  }

  /** Tell a cook something. The tap is kept before it is sent, and is sent once. */
  async function tell(cook: number, body: EventBody) {
    sound.arm()
    if (['done', 'skip'].includes(body.kind)) {
      if (tooSoon(cook)) return
      stepSince.set(cook, Date.now())
    }
    const live = cookOf(cook)
    const seen = live?.last_event ?? null
    const undoes = body.kind === 'undo' ? live?.undoable || null : null
    const tap: Tap = {
      id: newId(),
      cook,
      body: { ...body, seen, undoes },
      tappedAt: new Date().toISOString(),
    }
    await keep(tap)
  }

  /** Tell that a step of a side is done, or that the last one was not. */
  async function tellSide(side: OfSide, kind: 'done' | 'undo', step: string) {
    sound.arm()
    const what = [side.supper, side.line, kind, step].join('/')
    if (Date.now() - (sideSince.get(what) ?? 0) < GUARD_MS) return
    sideSince.set(what, Date.now())
    const same = (tap: Tap) =>
      tap.side?.line === side.line && tap.body.kind === kind && tap.body.step === step
    if ((await (await opened()).taps()).some(same)) return // it waits for the server already
    await keep({
      id: newId(),
      cook: 0,
      body: { kind, step } as EventBody,
      tappedAt: new Date().toISOString(),
      side,
    })
  }

  async function keep(tap: Tap) {
    await (await opened()).put(tap)
    sendAfter = 0
    await send()
  }

  async function send() {
    await alone('kettle-taps', async () => {
      const store = await opened()
      const next = async () => (await store.taps())[0]
      for (let tap = await next(); tap; tap = await next()) {
        // A look may bring what the tap did before its own answer comes.
        if (!stoodAt.has(tap.id)) stoodAt.set(tap.id, cookOf(tap.cook))
        const answer = tap.side ? await postSide(tap, tap.side) : await post(tap)
        const fate = fateOf(answer.problem)
        if (fate === 'again') {
          unsent.value = answer.problem
          sendAfter = Date.now() + pause(tries++)
          break
        }
        tries = 0
        unsent.value = undefined
        if (fate === 'refused')
          await store.refuse({
            id: tap.id,
            cook: tap.cook,
            why: told(answer.problem),
            side: tap.side,
          })
        await store.drop(tap.id)
        const before = stoodAt.get(tap.id)
        stoodAt.delete(tap.id)
        if (answer.data && !tap.side) note(answer.data as Live, tap.body.kind, before)
        else void refresh()
      }
    })
    await count()
  }

  const post = (tap: Tap) =>
    ask(() =>
      api.POST('/api/v1/cooks/{id}/events', {
        params: { path: { id: tap.cook } },
        body: {
          ...tap.body,
          id: tap.id,
          tapped_at: tap.tappedAt,
          sent_at: new Date().toISOString(),
        },
      }),
    )

  /** What a side was told; the supper comes with the next look. */
  const postSide = (tap: Tap, side: OfSide) =>
    ask(() =>
      api.POST('/api/v1/suppers/{id}/sides', {
        params: { path: { id: side.supper } },
        body: {
          id: tap.id,
          line: side.line,
          kind: tap.body.kind as 'done' | 'undo',
          step: tap.body.step,
          ago_s: 0,
          tapped_at: tap.tappedAt,
          sent_at: new Date().toISOString(),
        },
      }),
    )

  /** Leave a heat of a cook for another: reckoned by the server, so it is not kept for later. */
  async function leave(cook: Live, body: Omit<Leaving, 'id' | 'seen'>) {
    sound.arm()
    const { stage, gone, heat } = body
    const before = cookOf(cook.id)
    const { data, problem: refused } = await ask(() =>
      api.POST('/api/v1/cooks/{id}/elsewhere', {
        params: { path: { id: cook.id } },
        body: { id: newId(), stage, gone, heat, seen: cook.last_event },
      }),
    )
    if (data) note(data, 'instead', before)
    else void refresh()
    return refused
  }

  const told = (found: Problem | undefined) =>
    found?.errors?.map((fault) => fault.accepted).join('; ') || found?.detail || 'refused'

  async function count() {
    const store = await opened()
    waiting.value = (await store.taps()).length
    refusals.value = await store.refusals()
  }

  async function forget(id: string) {
    await (await opened()).forget(id)
    await count()
  }

  function hush(cook: number, alarm: Alarm) {
    hushed.value = new Set(hushed.value).add(hushKey(cook, alarm))
  }

  /** Ring for what is new: once a level, by one tab, the loudest first. */
  function ringNow() {
    if (!settled.value) return
    const rings = dueRings(heard.value, now.value)
    const top = loudest(rings, rung, hushed.value)
    rings.forEach((ring) => rung.add(ring.key))
    if (top && bell) sound.ring(top.alarm.level, top.alarm.says)
  }

  function tick() {
    now.value = served()
    ringNow()
    if (waiting.value && Date.now() >= sendAfter) void send()
  }

  /** Begin to watch; called once, by the application. */
  async function watch() {
    holdBell()
    window.setInterval(tick, 250)
    window.setTimeout(() => begin(calling.value), PATIENCE_MS)
    document.addEventListener('visibilitychange', () => document.hidden || tick())
    const store = await opened()
    for (const tap of takeOldTaps(localStorage, newId)) await store.put(tap)
    await count()
  }

  /** Of several tabs, one rings. */
  function holdBell() {
    const locks = globalThis.navigator?.locks
    if (!locks) return
    bell = false
    void locks.request('kettle-bell', () => {
      bell = true
      return new Promise(() => undefined)
    })
  }

  return {
    cooks,
    suppers,
    aside,
    underWay,
    problem,
    known,
    settled,
    watched,
    now,
    waiting,
    refusals,
    call,
    sound,
    cookOf,
    movedOf,
    sayMove,
    nowOf,
    refresh,
    tell,
    tellSide,
    moveSide,
    leave,
    forget,
    hush,
    watch,
    tooSoon,
    taken,
    takenSupper,
  }
})
