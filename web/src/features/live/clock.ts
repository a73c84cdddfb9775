import type { Live, Step } from '@/api/client'
import { clock, secondsUntil, stopwatch } from '@/shared/format/time'
import { fireSeconds, nextLook } from './fire'
import { cookTime } from './pace'

/** The one big figure: time under the heat, or what is left of a machine's step, or the clock. */
export function mainClock(cook: Live, step: Step | undefined, now: Date): string {
  const under = fireSeconds(cook, now)
  if (under !== null) return stopwatch(Math.floor(under))
  const own = cookTime(cook, now)
  if (step?.who === 'machine') return stopwatch(secondsUntil(step.due_at, own))
  return clock(own)
}

/** The line beside it. A hands step needs no clock of its own. */
export function clockWords(cook: Live, step: Step | undefined, now: Date): string {
  const under = fireSeconds(cook, now)
  if (under !== null) return fireWords(cook, under)
  if (step?.who !== 'machine') return ''
  if (step.key === 'wait') return `until you start at ${clock(step.due_at)}`
  if (secondsUntil(step.due_at, cookTime(cook, now)) < 0)
    return `over since ${clock(step.due_at)}: is it so?`
  return `left, until about ${clock(step.due_at)}`
}

function fireWords(cook: Live, under: number): string {
  const since = cook.fire?.assumed ? 'since the earliest it could be' : 'under the heat'
  if (cook.out && under < cook.out.to_s) {
    const from = Math.max(0, Math.round(cook.out.from_s - under))
    const to = Math.round(cook.out.to_s - under)
    return from > 0
      ? `${since}. Out in ${stopwatch(from)} to ${stopwatch(to)}`
      : `${since}. Out now`
  }
  const look = nextLook(cook, under)
  return look === undefined ? since : `${since}. Next look at ${stopwatch(look)}`
}
