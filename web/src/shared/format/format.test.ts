import { describe, expect, it } from 'vitest'
import { clock, day, duration, span, stopwatch } from './time'
import { helping, length, mass, niceStep, shownIn, temperature, typed } from './units'

describe('times', () => {
  it('says durations and stopwatch times as a cook would', () => {
    expect([40, 90, 3420, 5460, 7200].map(duration)).toEqual([
      '40 s',
      '2 min',
      '57 min',
      '1 h 31 min',
      '2 h',
    ])
    expect([0, 454, -12, 3723].map(stopwatch)).toEqual(['0:00', '7:34', '-0:12', '1:02:03'])
    expect(span(70, 120)).toBe('1:10 to 2:00')
    expect(span(556, 816)).toBe('9 to 14 min')
    expect(span(3960, 12_120)).toBe('1 h 6 min to 3 h 22 min')
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
    expect([helping(0.47, 'metric'), helping(0.2, 'us')]).toEqual(['470 g', '7.1 oz'])
    expect([helping(1.65, 'metric'), helping(1.65, 'us')]).toEqual(['1.65 kg', '3.6 lb'])
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

describe('figures in the cook’s units', () => {
  it('go there and back', () => {
    const cases: [string, number, string, number][] = [
      ['kg', 1, 'lb', 2.2046],
      ['mm', 254, 'in', 10],
      ['g', 28.349523, 'oz', 1],
      ['L', 0.946353, 'qt', 1],
      ['°C', 200, '°F', 392],
      ['min', 7, 'min', 7],
      ['m', 304.8, 'ft', 1000],
    ]
    for (const [unit, kept, name, value] of cases) {
      const found = shownIn(unit, 'us', 'F')
      expect(found.unit).toBe(name)
      expect(found.show(kept)).toBeCloseTo(value, 3)
      expect(found.keep(found.show(kept))).toBeCloseTo(kept, 9)
      expect(shownIn(unit, 'metric', 'C').show(kept)).toBe(kept)
    }
    expect([9, 0.22, 0.39, 18].map(niceStep)).toEqual([10, 0.25, 0.5, 25])
  })
})
