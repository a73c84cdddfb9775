import type { Live, Supper } from '@/api/client'
import { earlier, secondsUntil } from '@/shared/format/time'
import { cookTime, speedOf } from './pace'

export type Alarm = Live['alarms'][number]

/** The louder, the further on. */
export const LEVELS = ['look', 'due', 'act', 'ask', 'closer', 'full', 'out']
const STALE_S = 20

/** One thing to ring for: its own key, so that it rings once, and the alarm. */
export interface Ring {
  key: string
  cook: number
  alarm: Alarm
  /** Of a rehearsal: a cook in earnest goes before it. */
  rehearsed: boolean
}

const rank = (alarm: Alarm) => LEVELS.indexOf(alarm.level)

/** The cooks, and for each supper one more that calls for its sides, by the clock of a dish; its
 * number stays the same whichever dish that is. */
export function withSides(cooks: Live[], suppers: Supper[]): Live[] {
  const sides = suppers.flatMap((supper) => {
    const dish = cooks.find((cook) => cook.supper === supper.id)
    const alarms = supper.sides.flatMap((side) => side.calls)
    return dish ? [{ ...dish, id: -supper.id, ended_at: null, fire: null, alarms }] : []
  })
  return [...cooks, ...sides]
}

/** Everything that is due by now; what repeats has a new key each time. */
export function dueRings(cooks: Live[], now: Date): Ring[] {
  return cooks
    .filter((cook) => !cook.ended_at)
    .flatMap((cook) =>
      cook.alarms.flatMap((alarm) => {
        const late = -secondsUntil(alarm.at, cookTime(cook, now)) / speedOf(cook)
        if (late < 0) return []
        const turn = alarm.every_s > 0 ? `#${Math.floor(late / alarm.every_s)}` : ''
        const rehearsed = Boolean(cook.rehearsal)
        return [{ key: `${cook.id}/${alarm.id}${turn}`, cook: cook.id, alarm, rehearsed }]
      }),
    )
}

/** Rings that are long past when a page opens: they are over, unless they repeat. */
export function staleRings(cooks: Live[], now: Date): string[] {
  return dueRings(cooks, earlier(now, STALE_S))
    .filter((ring) => ring.alarm.every_s === 0)
    .map((ring) => ring.key)
}

/** The loudest of some rings; one of a rehearsal only where there is no other. */
function topOf(rings: Ring[]): Ring | undefined {
  const earnest = rings.filter((ring) => !ring.rehearsed)
  return (earnest.length ? earnest : rings).reduce<Ring | undefined>(
    (best, ring) => (!best || rank(ring.alarm) > rank(best.alarm) ? ring : best),
    undefined,
  )
}

/** The loudest of what is new and not hushed. */
export function loudest(rings: Ring[], rung: Set<string>, hushed: Set<string>): Ring | undefined {
  const fresh = rings.filter((r) => !rung.has(r.key) && !hushed.has(hushKey(r.cook, r.alarm)))
  return topOf(fresh)
}

/** A level is hushed for its own stretch under the heat; the next stretch calls again. */
export const hushKey = (cook: number, alarm: Alarm) => `${cook}/${alarm.id}`

/** The call that wants the whole screen now: the loudest that is due, wants it, and is not hushed. */
export function screenCall(cooks: Live[], now: Date, hushed: Set<string>): Ring | undefined {
  const top = topOf(dueRings(cooks, now).filter((r) => r.alarm.screen))
  return top && !hushed.has(hushKey(top.cook, top.alarm)) ? top : undefined
}

/** The loudest level that a cook has reached; it colours the page and the bar. */
export function urgency(cook: Live, now: Date): string {
  const due = dueRings([cook], now).filter((r) => rank(r.alarm) >= LEVELS.indexOf('closer'))
  const top = due.sort((a, b) => rank(b.alarm) - rank(a.alarm))[0]
  return top?.alarm.level ?? ''
}
