import { describe, expect, it } from 'vitest'
import { clock, day, duration, span, stopwatch } from './time'
import { length, mass, temperature, typed } from './units'

describe('times', () => {
  it('says durations and stopwatch times as a cook would', () => {
    expect([40, 90, 3420, 5460, 7200].map(duration)).toEqual(['40 s', '2 min', '57 min', '1 h 31 min', '2 h'])
    expect([0, 454, -12, 3723].map(stopwatch)).toEqual(['0:00', '7:34', '-0:12', '1:02:03'])
    expect(span(70, 120)).toBe('1:10 to 2:00')
    expect(span(556, 816)).toBe('9 to 14 min')
  })
  it('names the day only by its distance', () => {
    const now = new Date(2030, 4, 4, 23, 30)
    expect(day(new Date(2030, 4, 4, 1, 0), now)).toBe('today')
    expect(day(new Date(2030, 4, 5, 0, 10), now)).toBe('tomorrow')
    expect(day(new Date(2030, 4, 7, 12, 0), now)).toContain('7 May')
    expect(clock(new Date(2030, 4, 5, 7, 5))).toBe('07:05')
  })
})

describe('units', () => {
  it('shows both systems and always the unit', () => {
    expect([mass(1.6, 'metric'), mass(1.6, 'us')]).toEqual(['1.6 kg', '3.5 lb'])
    expect([length(45, 'metric'), length(45, 'us')]).toEqual(['45 mm', '1.8 in'])
    expect([temperature(100, 'C'), temperature(100, 'F')]).toEqual(['100 °C', '212 °F'])
  })
  it('keeps what is typed when it is no number', () => {
    expect(typed('3,5', 0.45359237)).toBeCloseTo(1.5876, 4)
    expect(typed('-2', 1)).toBe(-2)
    expect(typed('lots', 1)).toBe('lots')
    expect(typed('', 1)).toBe('')
  })
})
