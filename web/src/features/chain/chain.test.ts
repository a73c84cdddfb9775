import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Chain, ChainStage } from '@/api/client'
import { choices } from '@/__tests__/kitchen'
import { useChainDraft } from './draft'
import { changed, fieldsOf, find, freshId, offers, read, stageAt } from './stages'

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
    const coats = fieldsOf(grill, heats, 'glaze').find((f) => f.key === 'acts.coat')!
    const turns = fieldsOf(grill, heats, 'glaze').find((f) => f.key === 'acts.turn')!
    expect(fieldsOf(grill, heats).some((f) => f.key === 'acts.coat')).toBe(false)
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

  it('get names that no other has', () => {
    expect(freshId(chain(), 'rest')).toBe('rest')
    expect(freshId(chain(), 'broil')).toBe('broil-2')
    expect(offers(chain())).toHaveLength(4)
    expect(offers({ ...chain(), layers: [] })).toHaveLength(3)
  })
})

describe('the draft', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })
  const ids = (list: ChainStage[]) => list.map((one) => one.id)

  it('moves, takes out and puts in, and takes each back', () => {
    const draft = useChainDraft()
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
    draft.undo()
    draft.undo()
    draft.undo()
    expect(draft.chain).toEqual(chain())
    expect(draft.canUndo).toBe(false)
    draft.redo()
    expect(ids(find(draft.chain!, 'broil')!.list)).toEqual(['broil', 'brush'])
  })

  it('takes a repair as a JSON Patch, and a change forgets what was undone', () => {
    const draft = useChainDraft()
    draft.begin(chain())
    draft.patch([{ op: 'add', path: '/layers/0/boiled', value: true }])
    expect(draft.chain!.layers![0]!.boiled).toBe(true)
    draft.undo()
    draft.patch([{ op: 'add', path: '/stages/0', value: { kind: 'thaw', id: 'thaw' } }])
    expect(ids(draft.chain!.stages)[0]).toBe('thaw')
    expect(draft.canRedo).toBe(false)
  })
})
