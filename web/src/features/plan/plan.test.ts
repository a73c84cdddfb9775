import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Choices, Cut, Dish, Stage } from '@/api/client'
import { bites, choices as kitchen } from '@/__tests__/kitchen'
import { besideLink, fillOf, links } from './chain'
import { useDraft } from './draft'
import { minutesOf } from './minutes'
import { dialOf, faultsOf, otherFaults, sentence } from './sentence'

const ribs = {
  key: 'beef-short-ribs',
  name: 'beef short ribs',
  piece: 'rib',
  mass_kg: 1.6,
  pieces: 6,
  thickness_mm: 45,
  thin_mm: 20,
  thick_mm: 80,
  bites: bites('tug', 'falls', 'shreds'),
  default_bite: 'falls',
  release: 'mixed',
} as Cut
const octopus = {
  ...ribs,
  key: 'octopus',
  name: 'octopus',
  piece: 'arm',
  pieces: 8,
  bites: [{ key: 'falls', text: 'falls apart', hint: 'a fork is enough' }],
} as Cut
const choices = {
  cuts: [ribs, octopus],
  sauces: [{ key: 'plum-tea', name: 'plum and black tea' }],
  finishes: kitchen.finishes,
  first_heats: kitchen.first_heats,
  typical: kitchen.typical,
} as unknown as Choices
const dish: Dish = {
  cut: 'beef-short-ribs',
  mass_kg: 1.6,
  pieces: 6,
  thickness_mm: 45,
  state: 'fridge',
  tenderise: 'pressure',
  bite: 'falls',
  finish: 'broiler',
  want: 'mahogany',
  sauce: 'plum-tea',
  coats: 2,
  serve_at: null,
}
const now = new Date(2030, 4, 4, 17, 0)
const say = (d: Dish) =>
  sentence(d, choices, 'metric', now)
    .map((t) => t.text)
    .join('')

describe('the cook sentence', () => {
  it('reads as one line of plain English', () => {
    expect(say(dish)).toBe(
      '1.6 kg of beef short ribs in 6 pieces, 45 mm thick, from the fridge, under pressure until it falls off the bone, ' +
        '10 minutes on its own, then vented; then broiled dark, to mahogany, with two coats of plum and black tea, on the table as soon as it can be.',
    )
  })
  it('tells another appliance and a turn, and drops the minutes of coats that are no longer there', () => {
    expect(say({ ...dish, finish: 'oven', flips_min: [4, 7.5] })).toContain(
      'then roasted hot dark, to mahogany, with two coats of plum and black tea, turned at 4 and 7.5 min, on the table',
    )
    setActivePinia(createPinia())
    const draft = useDraft()
    draft.begin({ ...dish, coats_min: [0, 4] })
    draft.change({ coats: 3 })
    expect(draft.dish!.coats_min).toBeNull()
    draft.change({ coats_min: [0, 3, 6] })
    expect(draft.dish!.coats_min).toEqual([0, 3, 6])
  })
  it('reads minutes as people list them', () => {
    expect(['2, 5', '5 2.5', '2,5', '0; 3,5', '', ' 4, '].map(minutesOf)).toEqual([
      [2, 5],
      [2.5, 5],
      [2.5],
      [0, 3.5],
      [],
      [4],
    ])
    expect(['soon', '-1', '2, x'].map(minutesOf)).toEqual([undefined, undefined, undefined])
  })
  it('drops what does not apply: release of a braise, coats without sauce, bones of an octopus', () => {
    const plain = say({
      ...dish,
      cut: 'octopus',
      tenderise: 'braise',
      sauce: null,
      coats: 0,
      want: 'amber',
    })
    expect(plain).toContain(
      'braised under a lid until it falls apart; then broiled until browned, with no sauce',
    )
    expect(plain).not.toContain('vented')
  })
  it('tells the dial of a bath, in the degrees and the kitchen of this cook', () => {
    const bath = { ...dish, tenderise: 'bath' as const }
    expect(say(bath)).toContain(
      'from the fridge, in a water bath at 65 °C until it falls off the bone; then',
    )
    const told = (d: Dish, figures: Record<string, number>) =>
      sentence(d, choices, 'us', now, 'F', figures)
        .map((t) => t.text)
        .join('')
    expect(told(bath, { bath_c: 70 })).toContain('in a water bath at 158 °F')
    expect(told({ ...bath, kitchen: { bath_c: 80 } as Dish['kitchen'] }, { bath_c: 70 })).toContain(
      'at 176 °F',
    )
    expect(dialOf(dish, choices, {})).toBeUndefined()
    expect(
      faultsOf('tenderise', [{ field: 'kitchen.bath_c', given: 'warm', accepted: '45 to 95 °C' }]),
    ).toHaveLength(1)
  })
  it('tells a slow cooker by the word on its dial, and in watts where it has none', () => {
    const slow = { ...dish, tenderise: 'slow' as const }
    const at = (watts?: number) =>
      say(watts ? { ...slow, kitchen: { slow_power_w: watts } as Dish['kitchen'] } : slow)
    expect(at()).toContain('slow-cooked on high until')
    expect(at(112)).toContain('slow-cooked on low until')
    expect(at(180)).toContain('slow-cooked at 180 W until')
  })
  it('shows a refused entry as it was typed, and gives each fault to its part', () => {
    const odd = { ...dish, mass_kg: 'lots' as unknown as number }
    expect(say(odd)).toMatch(/^lots of beef/)
    const faults = [
      { field: 'mass_kg', given: 'lots', accepted: '0.05 to 12 kg' },
      { field: 'sauce.lines.0.mass_g', given: '-5', accepted: 'at least 0.01' },
      { field: 'kitchen.altitude_m', given: '9000', accepted: '-400 to 4500 m' },
    ]
    expect(faultsOf('mass', faults)).toHaveLength(1)
    expect(faultsOf('sauce', faults)).toHaveLength(1)
    expect(otherFaults(faults, sentence(dish, choices, 'metric', now)).map((f) => f.field)).toEqual(
      ['kitchen.altitude_m'],
    )
  })
})

describe('the draft', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })
  it('keeps sauce and coats, cut and its usual figures, in step', () => {
    const draft = useDraft()
    draft.begin(dish)
    draft.change({ sauce: null })
    expect(draft.dish?.coats).toBe(0)
    draft.change({ sauce: 'plum-tea' })
    expect(draft.dish?.coats).toBe(1)
    draft.change({}, octopus)
    expect(draft.dish).toMatchObject({ cut: 'octopus', pieces: 8, bite: 'falls', release: null })
  })
})

describe('the chain', () => {
  const stage = (key: string, likely: number, before: number, more: Partial<Stage> = {}) =>
    ({
      key,
      who: 'machine',
      hidden: true,
      serial: true,
      band: { low_s: likely, likely_s: likely, high_s: likely },
      before_serving: { low_s: before, likely_s: before, high_s: before },
      ...more,
    }) as Stage
  const stages = [
    stage('a', 100, 400),
    stage('heat', 50, 250, { serial: false }),
    stage('b', 300, 300),
  ]
  it('is as long as its minutes, with what runs beside it in its place', () => {
    expect(links(stages, 800).map((l) => [l.stage.key, l.x, l.width])).toEqual([
      ['a', 0, 200],
      ['b', 200, 600],
    ])
    expect(besideLink(stages[1]!, stages, 800)).toMatchObject({ x: 300, width: 100 })
  })
  it('tells hidden waits from timers, hands and fire', () => {
    expect(fillOf(stage('x', 1, 1))).toBe('wait')
    expect(fillOf(stage('x', 1, 1, { hidden: false }))).toBe('timer')
    expect(fillOf(stage('x', 1, 1, { who: 'hands' }))).toBe('hands')
    expect(fillOf(stage('x', 1, 1, { who: 'fire', hidden: false }))).toBe('fire')
  })
})
