import type { EventBody, Live } from '@/api/client'
import { duration, secondsUntil } from '@/shared/format/time'

/** What a tap did to supper, told for a while. */
export interface Moved {
  says: string
  until: number
}

const WORTH_S = 45 // less than this nobody plans by
const SHOWN_MS = 15_000
const WHY: Record<EventBody['kind'], string> = {
  done: 'by when this was done',
  extend: 'it wants longer',
  later: 'the guests come later',
  saw: 'by what you saw',
  rescue: 'by what you changed',
  skip: 'a check is left out',
  undo: 'taken back',
  way: 'another way back',
}

/** "Supper 3 min later: by what you saw." Nothing where it hardly moves. */
export function movedBy(
  before: Live | undefined,
  after: Live,
  kind: EventBody['kind'],
  now: number,
): Moved | undefined {
  if (!before) return undefined
  const later = secondsUntil(after.serve_at, new Date(before.serve_at))
  if (Math.abs(later) < WORTH_S) return undefined
  const failed = after.back && !before.back
  const why = failed ? after.back!.why : WHY[kind]
  const how = `${duration(Math.abs(later))} ${later > 0 ? 'later' : 'earlier'}`
  return { says: `Supper ${how}: ${why}.`, until: now + SHOWN_MS }
}
