import type { Live } from '@/api/client'
import { secondsUntil } from '@/shared/format/time'
import { cookTime } from './pace'

/** Seconds under the heat by now; null where nothing is under it. */
export function fireSeconds(cook: Live | undefined, now: Date): number | null {
  if (!cook?.fire || cook.ended_at) return null
  return cook.fire.before_s + Math.max(0, -secondsUntil(cook.fire.since, cookTime(cook, now)))
}

/** The next moment to look, by the heat's own clock; none once it should be out. */
export function nextLook(cook: Live, underS: number): number | undefined {
  return cook.looks_s.find((at) => at > underS)
}
