import { describe, expect, it } from 'vitest'
import { schoolWords } from './schools'

const choice = (later_s: number | null, right: number | null, chosen = false) => ({
  key: 'x',
  text: 'x',
  why: 'soonest',
  chosen,
  patch: [],
  later_s,
  right,
})

describe('what a school changes', () => {
  const now = choice(0, 0.7, true)
  it('is told against the one that is followed', () => {
    expect(schoolWords(now, [now])).toBe('soonest')
    expect(schoolWords(choice(720, 0.72), [now])).toBe('12 min longer')
    expect(schoolWords(choice(-720, 0.9), [now])).toBe('12 min shorter, right 9 evenings in 10')
    expect(schoolWords(choice(30, 0.6), [now])).toBe('same time, right 6 evenings in 10')
  })
  it('is nothing where it cannot be cooked so', () => {
    expect(schoolWords(choice(null, null), [now])).toBe('not with the rest of this plan')
  })
})
