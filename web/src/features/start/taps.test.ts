import { describe, expect, it } from 'vitest'
import type { Choices, Cut } from '@/api/client'
import { choices as kitchen } from '@/__tests__/kitchen'
import { dishOf, fingers, masses, piecesFor, taps, thicknesses } from './taps'

const ribs = {
  key: 'beef-short-ribs',
  name: 'beef short ribs',
  piece: 'rib',
  mass_kg: 1.6,
  pieces: 6,
  thickness_mm: 45,
  thin_mm: 20,
  thick_mm: 80,
  bites: ['tug', 'falls'],
  default_bite: 'falls',
  release: 'mixed',
} as Cut
const choices = {
  cuts: [ribs],
  sauces: [{ key: 'plum-tea', name: 'plum and black tea', colour: '#333333' }],
  finishes: kitchen.finishes,
  first_heats: kitchen.first_heats,
} as unknown as Choices

describe('the nine taps', () => {
  it('are nine, and ask nothing about the kitchen', () => {
    const list = taps(choices, {}, String, String)
    expect(list).toHaveLength(9)
    expect(list.map((t) => t.question).join(' ')).not.toMatch(/watt|litre|altitude|power/i)
    expect(list.every((t) => t.options.length > 0)).toBe(true)
  })
  it('come to a whole dish, with usual figures where nothing was said', () => {
    const now = new Date('2030-05-04T16:07:00Z')
    expect(
      dishOf(choices, { cut: 'beef-short-ribs', mass: '0.8', sauce: '', serve: '3' }, now),
    ).toMatchObject({
      mass_kg: 0.8,
      pieces: 3,
      thickness_mm: 45,
      sauce: null,
      coats: 0,
      bite: 'falls',
      serve_at: '2030-05-04T19:15:00.000Z',
    })
    expect(dishOf(choices, { sauce: 'plum-tea' }, now)).toMatchObject({ coats: 1, serve_at: null })
  })
  it('offers sensible amounts and thicknesses in order', () => {
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
