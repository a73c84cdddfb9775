import type { Live } from '@/api/client'

/** Which call is due now, from the server's list. No physics here: only the clock against given moments. */
export type Call = Live['calls'][number]

export const ASK_EVERY_S = 15
export const RING_FOR_S = 8

/** The last call at or before a moment under the heat. */
export function lastCall(calls: Call[], underS: number): Call | undefined {
  let found: Call | undefined
  for (const call of calls) if (call.at_s <= underS) found = call
  return found
}

/** The next call after a moment. */
export function nextCall(calls: Call[], underS: number): Call | undefined {
  return calls.find((call) => call.at_s > underS)
}

/** Whether the full screen is taken: near the end of the window and after it. */
export function takesScreen(call: Call | undefined): boolean {
  return call?.level === 'full' || call?.level === 'out'
}

/** A number that changes whenever there is something new to ring for; 0 is silence. */
export function ringKey(calls: Call[], underS: number | null, assumed: boolean): number {
  if (underS === null) return 0
  const due = calls.filter((call) => call.at_s <= underS).length
  const out = lastCall(calls, underS)?.level === 'out'
  if (out) return 100_000 + Math.floor(underS / 3)
  // Nobody said whether it is under the heat: asked again every 15 s.
  if (assumed) return 10_000 + due * 1000 + Math.floor(underS / ASK_EVERY_S)
  return due
}
