import dayjs from 'dayjs'
import type { Meal, Schedule } from '@/api/client'

/** Hours in which hardly anybody is at work, by the cook's own clock. */
const FROM_H = 23
const TO_H = 7

export type Away = NonNullable<Meal['quiet']>[number]

/** The night that a moment lies in, or else the last one before it. */
export function nightOf(moment: string | Date): Away {
  const at = dayjs(moment)
  const evening = at.hour() < FROM_H ? at.subtract(1, 'day') : at
  const start = evening.startOf('day').hour(FROM_H)
  const end = start.add(1, 'day').startOf('day').hour(TO_H)
  return { start: start.toISOString(), end: end.toISOString() }
}

const within = (moment: Date, span: Away) =>
  moment >= new Date(span.start) && moment < new Date(span.end)

/** Spans that are not over, in order. */
export const awayFrom = (spans: readonly Away[], now: Date): Away[] =>
  spans
    .filter((one) => new Date(one.end) > now)
    .sort((a, b) => new Date(a.start).getTime() - new Date(b.start).getTime())

/** Another span without hands; what is over is dropped, and what is there already stays. */
export function withAway(spans: readonly Away[], more: readonly Away[], now: Date): Away[] {
  const key = (one: Away) => `${new Date(one.start).getTime()} ${new Date(one.end).getTime()}`
  const all = new Map([...spans, ...more].map((one) => [key(one), one]))
  return awayFrom([...all.values()], now)
}

export interface Woken {
  at: Date
  nights: Away[]
}
/** The first moment at which hands are wanted in a night, and all such nights; not in this one,
 * since who plans now is up. */
export function wokenBy(tasks: Schedule['tasks'], now: Date): Woken | undefined {
  const found = new Map<string, Away>()
  let first: Date | undefined
  for (const task of tasks) {
    if (task.pair === null) continue
    const at = new Date(task.hands_at)
    const night = nightOf(at)
    if (!within(at, night) || within(now, night)) continue
    found.set(night.start, night)
    if (!first || at < first) first = at
  }
  return first && { at: first, nights: [...found.values()] }
}
