import { describe, expect, it } from 'vitest'
import type { ChainForecast } from '@/api/client'
import { card, markdown } from './card'
import { fileName, portable } from './files'

const at = (minutes: number) => new Date(2026, 10, 26, 18, minutes).toISOString()
const link = (key: string, minute: number, seconds: number, who: string, label: string) => ({
  key,
  stage: key.split('.')[0],
  who,
  label,
  starts_at: at(minute),
  band: { low_s: seconds, likely_s: seconds, high_s: seconds },
})
const glaze = {
  want: 'amber',
  caramelises: true,
  coats: [
    { at_s: 0, away_s: 0 },
    { at_s: 120, away_s: 20 },
  ],
  flips_s: [90],
  look_from_s: 60,
  window: { opens_s: 200, closes_s: 260, empty: false, hit: 0.8 },
}
const forecast = {
  title: 'Ribs | two fires',
  start_at: at(0),
  serve_at: at(50),
  serve_low_at: at(45),
  serve_high_at: at(58),
  preparation: [
    { kind: 'food', text: '1 kg of ribs' },
    { kind: 'thing', text: 'a brush' },
  ],
  links: [
    link('pot.hold', 10, 1200, 'machine', 'Under pressure'),
    link('pot.load', 0, 120, 'hands', 'Load the pot'),
    link('broil.under', 40, 20, 'machine', 'A short wait'),
    link('broil.finish', 41, 300, 'fire', 'Broil | look'),
  ],
  fires: [
    { stage: 'broil', heat: 'broiler', by: 'colour', timer_s: 230, glaze },
    {
      stage: 'crisp',
      heat: 'oven',
      by: 'minutes',
      timer_s: 480,
      glaze: { ...glaze, coats: [], flips_s: [] },
    },
  ],
  sentence: [{ stage: 'broil', text: 'broiled until amber' }],
  gates: [{ after: 'pot', tender: true, safe_c: 63, by_time: false }],
  watch_outs: [
    { id: 'a', level: 'careful', message: 'Never leave it.' },
    { id: 'a', level: 'careful', message: 'Never leave it.' },
    { id: 'b', level: 'good to know', message: 'Skin is dry.' },
  ],
  allergens: ['soy'],
  guidance: 'Usual guidance only.',
} as unknown as ChainForecast

describe('one page', () => {
  const page = card(forecast, new Date(2026, 10, 26, 17), 'C')

  it('goes by the clock, without the waits that nobody sees', () => {
    expect(page.when).toBe('Start 18:00, eat about 18:50 (18:45 to 18:58, 8 evenings in 10)')
    expect(page.lines.map((one) => [one.at, one.text])).toEqual([
      ['18:00', 'Load the pot'],
      ['18:10', 'Under pressure'],
      ['18:41', 'Broil | look'],
    ])
    expect(card(forecast, new Date(2026, 10, 25, 17), 'C').when).toContain('tomorrow')
  })

  it('tells what is done and looked for under each fire, in order', () => {
    expect(page.fires[0]!.marks.map((m) => m.at)).toEqual(['1:00', '1:30', '2:00', '3:20', '4:20'])
    expect(page.fires[0]!.marks[2]!.text).toBe('a coat goes on')
    expect(page.fires[1]!.marks).toEqual([{ at: '8:00', text: 'out, by the clock' }])
  })

  it('minds each thing once: what is careful, the gates, what it holds', () => {
    expect(page.mind).toEqual([
      'Never leave it.',
      'Its middle has to read 63 °C or more before it goes on.',
      'Holds soy.',
      'Usual guidance only.',
    ])
  })

  it('reads temperatures in the degrees of this cook', () => {
    const inF = card(forecast, new Date(2026, 10, 26, 17), 'F')
    expect(inF.mind[1]).toBe('Its middle has to read 145 °F or more before it goes on.')
  })

  it('is Markdown that a table survives', () => {
    const text = markdown(page)
    expect(text).toContain('# Ribs | two fires\n')
    expect(text).toContain('| 18:41 | Broil \\| look | 5 min |')
    expect(text.split('\n').filter((row) => row.startsWith('| 18:'))).toHaveLength(3)
    expect(text).toContain('**At hand**\n\n- a brush')
  })

  it('has a file name for any name', () => {
    expect(fileName('Ribs / “two” fires', '.md')).toBe('Ribs-two-fires.md')
    expect(fileName('///', '.md')).toBe('chain.md')
    expect(fileName('é'.repeat(200), '.md').length).toBeLessThan(70)
  })

  it('goes into a file without the numbers of this kitchen', () => {
    const own = { name: 'red', lines: [], sauce_id: 7 }
    const chain = { layers: [{ id: 'a', sauce: own }, { id: 'b', sauce: 'plum-tea' }, { id: 'c' }] }
    expect(portable(chain as never)).toEqual({
      layers: [
        { id: 'a', sauce: { ...own, sauce_id: null } },
        { id: 'b', sauce: 'plum-tea' },
        { id: 'c' },
      ],
    })
    expect(own.sauce_id).toBe(7)
  })
})
