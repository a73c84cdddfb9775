import type { EventBody, Live } from '@/api/client'
import { duration, secondsUntil } from '@/shared/format/time'

/** What a tap did to supper, told for a while. */
export interface Moved {
  says: string
  until: number
}

/** What was told: a tap, a reading by hand, or a heat that is left for another. */
export type Tapped = EventBody['kind'] | 'instead' | 'measured'

const WORTH_S = 45 // less than this nobody plans by
const SHOWN_MS = 15_000
const WHY: Record<Tapped, string> = {
  dial: 'by where it stands',
  done: 'by when this was done',
  extend: 'it wants longer',
  instead: 'it goes on elsewhere',
  later: 'the guests come later',
  felt: 'by how it feels',
  measured: 'by what you measured',
  saw: 'by what you saw',
  rescue: 'by what you changed',
  skip: 'a check is left out',
  undo: 'taken back',
  way: 'another way back',
}

/** Whether all that was told of a cook is reckoned with: its strip, a skewer and a probe. */
export const reckoned = (cook: Live) =>
  cook.glaze_ready && cook.feel?.ready !== false && cook.probe?.ready !== false

/** "Supper 3 min later: by what you saw." Nothing where it hardly moves. */
export function movedBy(
  before: Live | undefined,
  after: Live,
  kind: Tapped,
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
