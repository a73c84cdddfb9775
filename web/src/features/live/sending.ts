import type { Problem } from '@/api/client'

/** What an answer means for a tap: it is kept by the server, refused for good, or to be sent again. */
export type Fate = 'kept' | 'refused' | 'again'

/** Answers that say nothing of the tap itself: the server is away, full, busy, was asked too much, or
 * wants the passcode first. */
const AGAIN = new Set([0, 401, 408, 413, 423, 425, 429])

export function fateOf(problem: Problem | undefined): Fate {
  if (!problem) return 'kept'
  const status = problem.status
  return AGAIN.has(status) || status >= 500 ? 'again' : 'refused'
}

const busy = new Set<string>()

/** Do something once at a time, in one tab of all; in this tab alone where the browser has no locks
 * (it has them on a secure address only). */
export async function alone(name: string, work: () => Promise<void>): Promise<void> {
  if (busy.has(name)) return
  busy.add(name)
  try {
    const locks = globalThis.navigator?.locks
    if (!locks) await work()
    else await locks.request(name, { ifAvailable: true }, async (lock) => lock && (await work()))
  } finally {
    busy.delete(name)
  }
}

/** Milliseconds until the next try: a second, twice as long each time, half a minute at the most. */
export function pause(tries: number): number {
  return Math.min(30_000, 1000 * 2 ** Math.min(tries, 5))
}
