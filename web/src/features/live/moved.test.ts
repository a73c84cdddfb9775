import { describe, expect, it } from 'vitest'
import { at, live } from '@/__tests__/kitchen'
import { movedBy } from './moved'

const before = { ...live, serve_at: at(3600) }
const told = (seconds: number, kind: 'done' | 'saw' | 'undo' = 'saw', more = {}) =>
  movedBy(before, { ...live, serve_at: at(3600 + seconds), ...more }, kind, 0)?.says

describe('what a tap moved', () => {
  it('is told with its minutes and its reason', () => {
    expect(told(-180)).toBe('Supper 3 min earlier: by what you saw.')
    expect(told(120, 'undo')).toBe('Supper 2 min later: taken back.')
    const back = { step: 'cook.check', why: 'not tender yet', way: 0, ways: [] }
    expect(told(2400, 'done', { back })).toBe('Supper 40 min later: not tender yet.')
  })

  it('is silent where nobody would plan by it, and where nothing was known', () => {
    expect(told(30)).toBeUndefined()
    expect(movedBy(undefined, live, 'saw', 0)).toBeUndefined()
  })
})
