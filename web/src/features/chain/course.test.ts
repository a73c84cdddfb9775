import { describe, expect, it } from 'vitest'
import type { ChainForecast } from '@/api/client'
import { course, momentWords } from './course'

const link = (key: string, seconds: number, starts: number, label: string, serial = true) => ({
  key,
  stage: key.split('.')[0],
  label,
  serial,
  starts_at: new Date(2026, 10, 26, 18, 0, starts).toISOString(),
  band: { likely_s: seconds },
})
const forecast = {
  links: [
    link('salt.season', 100, 0, 'Salt it'),
    link('pot.come_up', 100, 100, 'Comes up'),
    link('broil.warm_up', 400, 0, 'Heat the broiler', false),
    link('pot.hold', 200, 200, 'Under pressure'),
    link('pot.check', 50, 400, 'Is it tender?'),
    link('serve', 50, 450, 'To the table'),
  ],
  slow_heats: [
    {
      stage: 'pot',
      name: 'pressure pot',
      traces: {
        time_s: [0, 150, 300],
        vessel_c: [20, 120, 120],
        centre_c: [4, 60, 90],
        mean_c: [4, 80, 95],
      },
    },
  ],
  course: [
    { link: '', centre_c: 4, mean_c: 4 },
    { link: 'salt.season', centre_c: 4.5, mean_c: 6 },
    { link: 'pot.check', centre_c: 89, mean_c: 84 },
    { link: 'gone', centre_c: 1, mean_c: 1 },
  ],
} as unknown as ChainForecast

describe('the course of a cook', () => {
  const [middle, whole, around] = course(forecast)

  it('lays traces and moments on the axis of the line', () => {
    expect(middle!.points).toEqual([
      { x: 0, c: 4 },
      { x: 0.2, c: 4.5 },
      { x: 0.2, c: 4 },
      { x: 0.5, c: 60 },
      { x: 0.8, c: 90 },
      { x: 0.9, c: 89 },
    ])
    expect(whole!.points.at(-1)).toEqual({ x: 0.9, c: 84 })
  })

  it('knows what is around the food only while it is in a slow heat', () => {
    expect(around!.name).toBe('in the pressure pot')
    expect(around!.points.map((p) => p.x)).toEqual([0.2, 0.5, 0.8])
  })

  it('tells a moment in words', () => {
    const says = momentWords(forecast)
    expect(says(0)).toBe('18:00 Salt it')
    expect(says(0.6)).toBe('18:05 Under pressure')
    expect(says(1)).toBe('18:08 To the table')
  })
})
