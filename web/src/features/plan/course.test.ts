import { describe, expect, it } from 'vitest'
import type { ChainForecast } from '@/api/client'
import { course, crust, momentWords, strips, tender } from './course'

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
        cook_min: [0, 5, 20],
      },
    },
  ],
  course: [
    { link: '', centre_c: 4, mean_c: 4, cook_min: 0 },
    { link: 'salt.season', centre_c: 4.5, mean_c: 6, cook_min: 1 },
    { link: 'pot.check', centre_c: 89, mean_c: 84, cook_min: 22 },
    { link: 'gone', centre_c: 1, mean_c: 1, cook_min: 99 },
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

  it('tells how tender it is, from what was gained before and in each heat', () => {
    expect(tender({ ...forecast, tenderness: null })).toEqual([])
    const wished = { ...forecast, tenderness: { target: 20 } } as unknown as ChainForecast
    const close = tender(wished).map(({ x, c }) => [x, Math.round(1000 * c) / 1000])
    expect(close).toEqual([
      [0, 0],
      [0.2, 0.05],
      [0.2, 0.05],
      [0.5, 0.3],
      [0.8, 1.05],
      [0.9, 1.1],
    ])
  })

  it('lays the colours of a fire where it lies, as far as it goes', () => {
    const under = { ...link('broil.fire', 100, 500, 'Broil and look'), who: 'fire' }
    const fired = {
      ...forecast,
      links: [...forecast.links, under],
      fires: [
        {
          stage: 'broil',
          glaze: { sample_s: [0, 50, 100, 150], face: ['#111', '#222', '#333', '#444'] },
        },
      ],
    } as unknown as ChainForecast
    const [strip] = strips(fired)
    expect(strip!.colours).toEqual(['#111', '#222', '#333'])
    expect([strip!.from, strip!.to]).toEqual([expect.closeTo(5 / 6), expect.closeTo(1)])
    expect(strips({ ...forecast, fires: [] })).toEqual([])
  })

  it('tells a moment in words', () => {
    const says = momentWords(forecast)
    expect(says(0)).toBe('18:00 Salt it')
    expect(says(0.6)).toBe('18:05 Under pressure')
    expect(says(1)).toBe('18:08 To the table')
  })

  it('lets a crust grow in a fire, and keeps it afterwards', () => {
    const fire = {
      stage: 'broil',
      glaze: {
        sample_s: [0, 100, 200, 900],
        face: ['a', 'b', 'c', 'd'],
        crust_mm: [0, 0.2, 0.4, 2],
      },
    }
    const links = [
      ...forecast.links.slice(0, 5),
      { ...link('broil.finish', 200, 450, 'Broil'), who: 'fire' },
      link('serve', 50, 650, 'To the table'),
    ]
    const moments = forecast.course.map((one) => ({ ...one, crust_mm: 0 }))
    const told = { ...forecast, fires: [fire], links, course: moments } as unknown as ChainForecast
    const points = crust(told)
    expect(points.map((one) => one.c)).toEqual([0, 0, 0, 0, 0.2, 0.4, 0.4])
    expect(points.at(-1)!.x).toBe(1)
    const bare = { ...told, fires: [], links: forecast.links } as unknown as ChainForecast
    expect(crust(bare)).toEqual([])
  })
})
