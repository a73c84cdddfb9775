import { describe, expect, it } from 'vitest'
import type { ChainForecast } from '@/api/client'
import { evenings, often } from '@/shared/format/share'
import { cost, weakest } from './right'

const told = (all_of_it: number, fires: Record<string, number>, bite: number | null) =>
  weakest({
    right: { all_of_it, fires, bite },
    sentence: [{ stage: 'fry', text: 'air fried at 150 °C' }],
  } as unknown as ChainForecast)

describe('how often it comes out right', () => {
  it('is ten or none of ten only where that is quite sure', () => {
    expect(evenings(0.96)).toBe('9 evenings in 10')
    expect(evenings(0.98)).toBe('10 evenings in 10')
    expect(evenings(0.04)).toBe('1 evening in 10')
    expect(often(0.98)).toBe('nearly always')
    expect(often(0.5)).toBe('5 times in 10')
    expect(often(0.02)).toBe('hardly ever')
  })

  it('names what goes wrong most often, and nothing where hardly anything does', () => {
    expect(told(0.9, { fry: 0.9 }, 0.95)).toBe('')
    expect(told(0.5, { fry: 0.9 }, 0.55)).toContain('tender enough 6 evenings')
    expect(told(0.5, { fry: 0.6 }, 0.8)).toContain('air fried at 150 °C, right 6 evenings')
    expect(told(0.5, { fry: 0.5 }, null)).toContain('air fried')
  })

  it('tells what a repair costs', () => {
    expect([cost(20), cost(600), cost(-1260)]).toEqual([
      'same time',
      '10 min longer',
      '21 min shorter',
    ])
  })
})
