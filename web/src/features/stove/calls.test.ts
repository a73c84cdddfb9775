import { describe, expect, it } from 'vitest'
import { lastCall, nextCall, ringKey, takesScreen, type Call } from './calls'

const calls: Call[] = [
  { at_s: 40, level: 'look', says: 'Look now' },
  { at_s: 120, level: 'closer', says: 'Look closer' },
  { at_s: 200, level: 'full', says: 'Nearly out' },
  { at_s: 240, level: 'out', says: 'Out now.' },
]

describe('calls under the heat', () => {
  it('are silent before the first, and found by the clock after', () => {
    expect(lastCall(calls, 39)).toBeUndefined()
    expect(lastCall(calls, 125)?.level).toBe('closer')
    expect(nextCall(calls, 125)?.at_s).toBe(200)
    expect(nextCall(calls, 999)).toBeUndefined()
    expect([130, 210, 900].map((s) => takesScreen(lastCall(calls, s)))).toEqual([false, true, true])
  })
  it('ring once a call, every 15 s while nobody said it is under, and on and on after the end', () => {
    expect(ringKey(calls, null, false)).toBe(0)
    expect(ringKey(calls, 30, false)).toBe(0)
    expect(ringKey(calls, 45, false)).toBe(ringKey(calls, 100, false))
    expect(ringKey(calls, 119, false)).not.toBe(ringKey(calls, 121, false))
    expect(ringKey(calls, 46, true)).not.toBe(ringKey(calls, 61, true))
    expect(ringKey(calls, 250, false)).not.toBe(ringKey(calls, 254, false))
  })
})
