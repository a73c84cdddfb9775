import { describe, expect, it } from 'vitest'
import type { Beginning, Choices } from '@/api/client'
import { choices as kitchen } from '@/__tests__/kitchen'
import {
  answered,
  asked,
  bodyOf,
  fingers,
  masses,
  nextTap,
  ORDER,
  piecesFor,
  tapOf,
  thicknesses,
  type Told,
} from './taps'

const choices = kitchen as Choices
const ribs = choices.cuts[0]!
const whens = ['before', 'twice', 'after']
const begun = {
  heats: [{ key: 'pressure', place: 'a pressure pot', hint: 'quickest', usual: true }],
  finishes: [{ key: 'broiler', place: "the oven's broiler", hint: 'fierce', usual: true }],
  whens,
} as unknown as Beginning
const units = { mass: String, length: String }
const ALL: Told = {
  cut: 'beef-short-ribs',
  state: 'fridge',
  mass: '0.8',
  thickness: '45',
  heat: 'pressure',
  bite: 'falls',
  finish: 'broiler',
  sauce: 'plum-tea',
  when: 'twice',
}

describe('the nine taps', () => {
  it('are nine, each with something to tap, and none about the kitchen', () => {
    const list = ORDER.map((key) => tapOf(key, choices, {}, begun, [], units))
    expect(list).toHaveLength(9)
    expect(list.map((tap) => tap.question).join(' ')).not.toMatch(/watt|litre|altitude|power/i)
    expect(list.every((tap) => tap.options.length > 0)).toBe(true)
    // The usual answer is marked wherever there is one.
    const marked = list.filter((tap) => tap.options.some((one) => one.usual))
    expect(marked.map((tap) => tap.key)).toEqual([
      'mass',
      'thickness',
      'heat',
      'bite',
      'finish',
      'when',
    ])
  })
  it('ask only what is open: one bite or one moment is no question', () => {
    expect(asked(choices, {}, undefined)).toEqual(ORDER)
    expect(asked(choices, { sauce: '' }, begun)).not.toContain('when')
    expect(asked(choices, ALL, { ...begun, whens: ['after'] })).not.toContain('when')
    const loin = { ...choices, cuts: [{ ...ribs, bites: ribs.bites.slice(0, 1) }] }
    expect(asked(loin, ALL, begun)).not.toContain('bite')
  })
  it('go on to what is open, also before the one that was changed', () => {
    const { when, mass, ...rest } = ALL
    expect(nextTap(ORDER, rest, 'state')).toBe('mass')
    expect(nextTap(ORDER, { ...rest, mass }, 'state')).toBe('when')
    expect(nextTap(ORDER, { ...rest, when }, 'sauce')).toBe('mass')
    expect(nextTap(ORDER, ALL, 'when')).toBeUndefined()
  })
  it('let go of what hung on a changed answer, and of nothing else', () => {
    expect(answered(ALL, 'cut', 'octopus')).toEqual({
      cut: 'octopus',
      state: 'fridge',
      sauce: 'plum-tea',
    })
    expect(answered(ALL, 'cut', ALL.cut!)).toEqual(ALL)
    expect(answered(ALL, 'bite', 'shreds')).toEqual({ ...ALL, bite: 'shreds', when: undefined })
  })
  it('are told to the server with what was answered alone', () => {
    expect(bodyOf(ALL, 'plum-tea', choices)).toMatchObject({
      mass_kg: 0.8,
      pieces: 3,
      finish: 'broiler',
      alone: false,
      sauce: 'plum-tea',
      when: 'twice',
    })
    const bare = bodyOf({ cut: 'octopus', finish: '', sauce: '' }, 'plum-tea', choices)
    expect(bare).toMatchObject({ alone: true, finish: undefined, sauce: undefined })
    expect(bare.mass_kg).toBeUndefined()
  })
  it('offer sensible amounts and thicknesses in order', () => {
    expect(masses(ribs)).toEqual([0.8, 1.2, 1.6, 2.4])
    expect(piecesFor(ribs, 0.1)).toBe(1)
    const mm = thicknesses(ribs).map((t) => t.mm)
    expect(mm).toEqual([...mm].sort((a, b) => a - b))
    expect([18, 27, 45].map(fingers)).toEqual([
      'about one finger',
      'about one and a half fingers',
      'about two and a half fingers',
    ])
  })
})
