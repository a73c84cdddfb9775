import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Chain, ChainStage } from '@/api/client'
import { choices } from '@/__tests__/kitchen'
import { useDraft } from './draft'
import { allStages, dryLayer, layerOf, putLayer, takesLayer, withoutLeft } from './layers'
import { changed, fieldsOf, find, freshId, read, roundsOf, stageAt } from './stages'

const heats = choices.heats
const chain = (): Chain =>
  ({
    format: 'kettle.dish/2',
    food: { cut: 'pork-ribs', mass_kg: 1.4, pieces: 4, thickness_mm: 26 },
    layers: [{ id: 'glaze', sauce: 'plum-tea' }],
    stages: [
      { kind: 'heat', id: 'pot', heat: 'pressure', until: { by: 'bite', bite: 'tug' } },
      {
        kind: 'rounds',
        id: 'twice',
        times: 2,
        stages: [
          { kind: 'dress', id: 'brush', layer: 'glaze', mm: 0.5 },
          {
            kind: 'heat',
            id: 'broil',
            heat: 'broiler',
            dial: 0.15,
            until: { by: 'minutes', minutes: 3 },
          },
        ],
      },
      {
        kind: 'split',
        id: 'halves',
        shares: [
          { share: 0.5, stages: [{ kind: 'rest', id: 'one', minutes: 3 }] },
          { share: 0.5, stages: [{ kind: 'rest', id: 'two', minutes: 3 }] },
        ],
      },
    ],
  }) as unknown as Chain

const stage = (at: Chain, id: string) => {
  const found = find(at, id)!
  return found.list[found.place]!
}
const field = (id: string, key: string, at = chain()) =>
  fieldsOf(stage(at, id), heats).find((f) => f.key === key)!

describe('stages', () => {
  it('are found in rounds by their round, and in both tails', () => {
    const at = chain()
    expect(stage(at, 'broil.2').id).toBe('broil')
    expect(stage(at, 'two').kind).toBe('rest')
    expect(find(at, 'nowhere')).toBeUndefined()
  })

  it('are found by the field of a fault', () => {
    expect(stageAt(chain(), 'stages.1.stages.0.mm')).toBe('brush')
    expect(stageAt(chain(), 'stages.2.shares.1.stages.0.minutes')).toBe('two')
    expect(stageAt(chain(), 'food.mass_kg')).toBeUndefined()
  })

  it('show a distance in centimetres and keep metres', () => {
    const rack = field('broil', 'dial')
    expect([rack.unit, rack.least, rack.most]).toEqual(['cm', 5, 35])
    expect(read(stage(chain(), 'broil'), rack)).toBe(15)
    const next = changed(stage(chain(), 'broil'), rack, 20, heats)
    expect((next as { dial: number }).dial).toBeCloseTo(0.2)
  })

  it('offer only the ends that a heat has', () => {
    const ends = (id: string) => field(id, 'until.by').options!.map((o) => o.value)
    expect(ends('pot')).toEqual(['minutes', 'bite', 'core'])
    expect(ends('broil')).toEqual(['minutes', 'colour'])
  })

  it('bring what hangs on a heat along when it becomes another', () => {
    const pot = { ...stage(chain(), 'pot'), release: 'quick', liquid_l: 0.4 } as ChainStage
    const next = changed(pot, field('pot', 'heat'), 'broiler', heats) as Record<string, unknown>
    expect(next).toMatchObject({ heat: 'broiler', dial: null, release: null, liquid_l: null })
    expect(next.until).toEqual({ by: 'colour', want: 'amber' })
    const clock = changed(pot, field('pot', 'until.by'), 'minutes', heats)
    expect((clock as { until: object }).until).toEqual({ by: 'minutes', minutes: 10 })
    expect(pot).toMatchObject({ release: 'quick' })
  })

  it('a heat that finds its own timer can be given one, and be let find it again', () => {
    const pot = chain().stages[0]!
    const timer = fieldsOf(pot, heats).find((f) => f.key === 'until.minutes')!
    expect(timer.empty).toBe('as long as it takes')
    const set = changed(pot, timer, 24, heats)
    expect(read(set, timer)).toBe(24)
    expect(set).toMatchObject({ until: { by: 'bite', bite: 'tug', minutes: 24 } })
    expect(changed(set, timer, null, heats)).toMatchObject({ until: { minutes: null } })
  })

  it('take coats and turns, and lose them again', () => {
    const grill = stage(chain(), 'broil')
    const coats = fieldsOf(grill, heats).find((f) => f.key === 'acts.coat')!
    const turns = fieldsOf(grill, heats).find((f) => f.key === 'acts.turn')!
    expect(field('pot', 'acts.turn')).toBeUndefined()
    const two = changed(changed(grill, turns, 2, heats), coats, 1, heats, 'glaze')
    expect((two as { acts: object[] }).acts).toEqual([
      { do: 'coat', at_min: null, layer: 'glaze' },
      { do: 'turn', at_min: 1 },
      { do: 'turn', at_min: 2 },
    ])
    expect([read(two, coats), read(two, turns)]).toEqual([1, 2])
    expect((changed(two, turns, 0, heats) as { acts: object[] }).acts).toHaveLength(1)
  })

  it('take minutes for turns and coats; a coat without one waits for the last to set', () => {
    const acts = [
      { do: 'coat', at_min: null, layer: 'glaze' },
      { do: 'coat', at_min: null, layer: 'glaze' },
      { do: 'turn', at_min: 2 },
    ]
    const grill = { ...stage(chain(), 'broil'), acts } as unknown as ChainStage
    const field = (key: string) => fieldsOf(grill, heats).find((f) => f.key === key)!
    expect([read(grill, field('at.turn')), read(grill, field('at.coat'))]).toEqual([[2], []])
    const brushed = changed(grill, field('at.coat'), [1.5], heats) as unknown as { acts: unknown[] }
    expect(brushed.acts).toEqual([
      { do: 'coat', at_min: null, layer: 'glaze' },
      { do: 'coat', at_min: 1.5, layer: 'glaze' },
      { do: 'turn', at_min: 2 },
    ])
    const turned = changed(grill, field('at.turn'), [1, 4], heats) as unknown as {
      acts: { do: string; at_min: number }[]
    }
    expect(turned.acts.filter((act) => act.do === 'turn').map((act) => act.at_min)).toEqual([1, 4])
  })

  it('ask how pieces lie in a heat that goes through them, in a block only what is frozen', () => {
    const ways = (kind: string, frozen: boolean) =>
      fieldsOf({ ...stage(chain(), kind) }, heats, choices.cuts[0]!, frozen)
        .find((f) => f.key === 'lies')
        ?.options?.map((one) => one.value)
    expect(ways('pot', true)).toEqual(['', 'single', 'stacked', 'block'])
    expect(ways('pot', false)).toEqual(['', 'single', 'stacked'])
    expect(ways('broil', true)).toBeUndefined()
    const pot = { ...stage(chain(), 'pot'), lies: 'coiled' } as ChainStage
    expect(changed(pot, field('pot', 'heat'), 'broiler', heats)).toMatchObject({ lies: null })
  })

  it('offer the bites of their cut, and no field for a kind that has none', () => {
    const pot = chain().stages[0]!
    const bite = fieldsOf(pot, heats, choices.cuts[1]!).find((f) => f.key === 'until.bite')!
    expect(bite.options!.map((one) => one.value)).toEqual(['tug', 'falls'])
    const kinds = ['drain', 'blot', 'cool'] as const
    for (const kind of kinds) expect(fieldsOf({ kind, id: 'x' }, heats)).toEqual([])
    expect(roundsOf(chain(), 'broil.2')?.id).toBe('twice')
    expect(roundsOf(chain(), 'pot')).toBeUndefined()
  })

  it('get names that no other has', () => {
    expect(freshId(chain(), 'rest')).toBe('rest')
    expect(freshId(chain(), 'broil')).toBe('broil-2')
  })
})

describe('layers', () => {
  const used = (at: Chain) => (at.layers ?? []).map((one) => one.id)

  it('come with a sauce, once for one sauce, and go when nothing uses them', () => {
    const before = chain()
    const next = chain()
    expect(layerOf(next, 'plum-tea')).toBe('glaze')
    expect(layerOf(next, 'date-mustard')).toBe('sauce')
    expect(layerOf(next, { name: 'Mine', lines: [], sauce_id: 4 } as never)).toBe('sauce-2')
    const at = find(next, 'brush')!
    at.list[at.place] = putLayer(at.list[at.place]!, 'sauce')
    withoutLeft(before, next)
    // The plum glaze was in use and is no more; what nobody used before is not touched.
    expect(used(next)).toEqual(['sauce', 'sauce-2'])
  })

  it('go into the coats of a heat and onto a dry surface', () => {
    const grill = {
      ...stage(chain(), 'broil'),
      acts: [
        { do: 'coat', layer: 'glaze' },
        { do: 'turn', at_min: 1 },
      ],
    } as unknown as ChainStage
    expect(takesLayer(grill)).toBe('sauce')
    expect((putLayer(grill, 'sauce') as unknown as { acts: unknown[] }).acts).toEqual([
      { do: 'coat', layer: 'sauce' },
      { do: 'turn', at_min: 1 },
    ])
    expect(takesLayer(stage(chain(), 'broil'))).toBeUndefined()
    const rubbed = { kind: 'season', id: 'salt', layer: 'rub', massaged: true } as ChainStage
    expect(takesLayer(rubbed)).toBe('dry')
    expect(putLayer(rubbed, 'dry')).toMatchObject({ layer: 'dry', massaged: true })
    expect(putLayer(rubbed, null)).toMatchObject({ layer: null, massaged: false })
    const next = chain()
    expect([dryLayer(next), dryLayer(next)]).toEqual(['dry', 'dry-2'])
  })

  it('are looked for in rounds and in both tails', () => {
    expect(allStages(chain()).map((one) => one.id)).toEqual([
      'pot',
      'twice',
      'brush',
      'broil',
      'halves',
      'one',
      'two',
    ])
  })
})

describe('the draft', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })
  const ids = (list: ChainStage[]) => list.map((one) => one.id)

  it('moves, takes out and puts in, and takes each back', () => {
    const draft = useDraft()
    draft.begin(chain())
    draft.takeOut('brush.1')
    expect(find(draft.chain!, 'brush')).toBeUndefined()
    draft.undo()
    draft.move('brush', 1)
    expect(ids(find(draft.chain!, 'broil')!.list)).toEqual(['broil', 'brush'])
    draft.move('brush', 1)
    expect(ids(find(draft.chain!, 'broil')!.list)).toEqual(['broil', 'brush'])
    draft.putAfter('pot', { kind: 'rest', minutes: 5 })
    expect(ids(draft.chain!.stages)).toEqual(['pot', 'rest', 'twice', 'halves'])
    draft.moveTo('pot', 'twice')
    expect(ids(draft.chain!.stages)).toEqual(['rest', 'twice', 'pot', 'halves'])
    draft.moveTo('pot', 'broil') // rounds are a list of their own
    expect(ids(draft.chain!.stages)).toEqual(['rest', 'twice', 'pot', 'halves'])
    for (let back = 0; back < 3; back++) draft.undo()
    expect(draft.chain).toEqual(chain())
    expect(draft.canUndo).toBe(false)
    draft.redo()
    expect(ids(find(draft.chain!, 'broil')!.list)).toEqual(['broil', 'brush'])
  })

  it('puts in what is offered: at the start, with a sauce, ready for a stage', () => {
    const draft = useDraft()
    draft.begin(chain())
    expect(draft.putAfter('', { kind: 'season' })).toBe('season')
    draft.putAfter('pot', { kind: 'dress', how: 'brush', layer: '$sauce' }, 'glaze')
    draft.putAfter('pot', { kind: 'beside', name: 'x', minutes: 5, ready_for: '$stage' })
    expect(draft.chain!.stages.slice(0, 4)).toMatchObject([
      { id: 'season' },
      { id: 'pot' },
      { kind: 'beside', ready_for: 'pot' },
      { kind: 'dress', layer: 'glaze' },
    ])
    draft.begin({ ...chain(), layers: [] })
    draft.putAfter('pot', { kind: 'dress', how: 'brush', layer: '$sauce' }, '', 'date-mustard')
    expect(draft.chain!.layers).toEqual([{ id: 'sauce', sauce: 'date-mustard' }])
    // What the taken out stage alone used goes with it.
    draft.takeOut('dress')
    expect(draft.chain!.layers).toEqual([])
  })

  it('takes a repair as a JSON Patch, and a change forgets what was undone', () => {
    const draft = useDraft()
    draft.begin(chain())
    draft.patch([{ op: 'add', path: '/layers/0/boiled', value: true }])
    expect(draft.chain!.layers![0]!.boiled).toBe(true)
    draft.undo()
    draft.patch([{ op: 'add', path: '/stages/0', value: { kind: 'thaw', id: 'thaw' } }])
    expect(ids(draft.chain!.stages)[0]).toBe('thaw')
    expect(draft.canRedo).toBe(false)
  })
})
