import { describe, expect, it } from 'vitest'
import type { ChainForecast } from '@/api/client'
import { glaze } from '@/__tests__/kitchen'
import { energyWords, rows } from './compare'

const made = (more: Record<string, unknown>) =>
  ({
    total: { low_s: 5000, likely_s: 5400, high_s: 6000 },
    serve_at: '2030-05-04T18:30:00Z',
    serve_low_at: '2030-05-04T18:20:00Z',
    serve_high_at: '2030-05-04T18:50:00Z',
    headline_s: 3000,
    hands_s: 600,
    right: { all_of_it: 0.8, fires: {}, bite: 0.9 },
    fires: [{ stage: 'broil', by: 'colour', timer_s: 240, glaze }],
    watch_outs: [],
    energy_kwh: { electricity: 1.2 },
    ...more,
  }) as unknown as ChainForecast
const row = (what: string, a: ChainForecast, b: ChainForecast) =>
  rows(a, b, 0.3).find((one) => one.what === what)!

describe('two cooks side by side', () => {
  const usual = made({})

  it('say the same of the same, and neither is better', () => {
    for (const one of rows(usual, made({}), null)) {
      expect(one.says[0]).toBe(one.says[1])
      expect(one.better).toBeUndefined()
    }
  })

  it('tell which is sooner, surer, wider and safer', () => {
    const slow = made({ total: { low_s: 1, likely_s: 9000, high_s: 9 }, hands_s: 300 })
    expect(row('Honest time', usual, slow)).toMatchObject({
      says: ['1 h 30 min', '2 h 30 min'],
      better: 0,
    })
    expect(row('Hands busy', usual, slow).better).toBe(1)
    const sure = made({ right: { all_of_it: 0.9, fires: {}, bite: null } })
    expect(row('Comes out right', usual, sure)).toMatchObject({
      says: ['8 evenings in 10', '9 evenings in 10'],
      better: 1,
    })
    expect(row('As tender as wished', usual, sure).says[1]).toBe('not wished')
    const unsafe = made({ watch_outs: [{ level: 'stop' }, { level: 'careful' }] })
    expect(row('To be mended first', unsafe, usual)).toMatchObject({
      says: ['1 to stop for', 'nothing'],
      better: 1,
    })
  })

  it('tell the window, the clock, and that there is none', () => {
    expect(row('Out of the last fire', usual, made({ fires: [] }))).toMatchObject({
      says: ['3:20 to 4:20, 60 s wide', 'no fire to watch'],
      better: 0,
    })
    const clock = made({ fires: [{ stage: 'b', by: 'minutes', timer_s: 240, glaze }] })
    const never = { ...glaze, window: { ...glaze.window, empty: true } }
    const shut = made({ fires: [{ stage: 'b', by: 'colour', timer_s: 240, glaze: never }] })
    expect(row('Out of the last fire', clock, shut).says).toEqual([
      'by the clock, 4 min',
      'by its look alone',
    ])
  })

  it('tell a crust only where it crackles in time', () => {
    const crisp = (likely_s: number | null) => {
      const face = { ...glaze.milestones['face'], crisp: { likely_s } }
      const own = { ...glaze, milestones: { ...glaze.milestones, face } }
      return made({ fires: [{ stage: 'b', by: 'colour', timer_s: 240, glaze: own }] })
    }
    expect(row('Crust', crisp(200), crisp(300)).says).toEqual([
      'crackles from 3:20 on',
      'soft when it comes out',
    ])
    expect(row('Crust', crisp(null), crisp(240)).says[0]).toBe('soft when it comes out')
  })

  it('price what comes out of the wall alone', () => {
    expect(energyWords({ electricity: 1.2, gas: 2 }, 0.3)).toBe(
      'about 1.2 kWh of electricity, 0.36 and 2.0 kWh of gas',
    )
    expect(energyWords({ electricity: 1.2 }, null)).toBe('about 1.2 kWh of electricity')
    expect(energyWords({}, 0.3)).toBe('none')
  })
})
