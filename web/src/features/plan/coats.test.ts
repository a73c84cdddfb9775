import { describe, expect, it } from 'vitest'
import type { Chain, ChainStage, Glaze } from '@/api/client'
import { glaze, plan } from '@/__tests__/kitchen'
import { addCoat, drops, moveCoat, takeCoat, thickCoats } from './coats'

type Heat = ChainStage & { kind: 'heat' }

/** The ribs with a coat before the broiler and so many in it, which have no minutes yet. */
function given(inside: number): Chain {
  const chain = plan()
  const fire = chain.stages[2] as Heat
  fire.acts = [
    ...Array.from({ length: inside }, () => ({ do: 'coat', at_min: null, layer: 'glaze' })),
    { do: 'turn', at_min: 4 },
  ] as never
  return chain
}
const strip = (...at: number[]): Glaze => ({
  ...glaze,
  coats: at.map((at_s) => ({ at_s, away_s: 60 })),
})
const acts = (chain: Chain) =>
  (chain.stages.find((stage) => stage.id === 'broil') as Heat).acts!.map((a) => [a.do, a.at_min])
const kinds = (chain: Chain) => chain.stages.map((stage) => stage.kind)

describe('coats on a strip', () => {
  const chain = given(2)
  const all = drops(chain.stages[2], strip(0, 120, 330))

  it('are those before the heat and those in it', () => {
    expect(all.map((one) => [one.number, one.at_s, one.before])).toEqual([
      [1, 0, true],
      [2, 120, false],
      [3, 330, false],
    ])
    expect(drops(chain.stages[0], strip())).toEqual([])
    expect(drops(undefined, strip(0))).toEqual([])
  })

  it('leave the others where they are when one is moved, to the quarter of a minute', () => {
    const next = given(2)
    moveCoat(next, 'broil', all, 2, 202)
    expect(acts(next)).toEqual([
      ['coat', 3.25],
      ['turn', 4],
      ['coat', 5.5],
    ])
    moveCoat(next, 'broil', drops(next.stages[2], strip(0, 195, 330)), 2, 420)
    expect(acts(next).map(([, minute]) => minute)).toEqual([4, 5.5, 7])
    expect(kinds(next)).toEqual(['heat', 'dress', 'heat'])
  })

  it('go into the fire when they are moved off its start, and before it when they come back', () => {
    const next = given(1)
    const two = drops(next.stages[2], strip(0, 120))
    moveCoat(next, 'broil', two, 1, 10)
    expect(kinds(next)).toEqual(['heat', 'dress', 'heat'])
    moveCoat(next, 'broil', two, 1, 60)
    expect(kinds(next)).toEqual(['heat', 'heat'])
    expect(acts(next)).toEqual([
      ['coat', 1],
      ['coat', 2],
      ['turn', 4],
    ])
    moveCoat(next, 'broil', drops(next.stages[1], strip(60, 120)), 1, 0)
    expect(kinds(next)).toEqual(['heat', 'dress', 'heat'])
    expect(next.stages[1]).toMatchObject({ layer: 'glaze' })
    // A second one at the start would lie on the first: it stays in the fire.
    moveCoat(next, 'broil', drops(next.stages[2], strip(0, 120)), 2, 0)
    expect(acts(next)[0]).toEqual(['coat', 0.25])
  })

  it('are taken off, the last with its sauce, and put on once more', () => {
    const next = given(1)
    takeCoat(next, 'broil', drops(next.stages[2], strip(0, 120)), 2)
    expect(acts(next)).toEqual([['turn', 4]])
    addCoat(next, 'broil', drops(next.stages[2], strip(0)), 'glaze', 60)
    expect(acts(next)).toEqual([
      ['coat', 1],
      ['turn', 4],
    ])
    takeCoat(next, 'broil', drops(next.stages[2], strip(0, 60)), 1)
    expect(kinds(next)).toEqual(['heat', 'heat'])
    takeCoat(next, 'broil', drops(next.stages[1], strip(60)), 1)
    expect(next.layers).toEqual([])
  })

  it('are as thick in the fire as before it', () => {
    const next = given(1)
    thickCoats(next, 'broil', 0.8)
    expect([next.stages[1], next.stages[2]]).toMatchObject([{ mm: 0.8 }, { coat_mm: 0.8 }])
  })
})
