import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { line } from '@/__tests__/kitchen'
import type { Ledger } from '@/api/client'
import LineList from './LineList.vue'
import { fromFile, ownByHand, labelPlaces, layers, percent, yieldWords } from './jar'
import { bands, leftInBowl, movesOf, portionsOf, touchesRaw, type PortionPlan } from './ledger'

const portion = (
  name: string,
  use: PortionPlan['use'],
  mass_g = 100,
  more: Partial<PortionPlan> = {},
): PortionPlan => ({ name, mass_g, use, later: false, boil: false, ...more })

describe('the jar', () => {
  it('stacks its layers without gaps from what floats to what sinks, and leaves traces out', () => {
    const found = layers({ water: 0.5, sucrose: 0.296, fat: 0.2, salt: 0.004 })
    expect(found.map((l) => l.part)).toEqual(['fat', 'water', 'sucrose'])
    expect(found[0]!.from).toBe(0)
    for (let i = 1; i < found.length; i++) expect(found[i]!.from).toBe(found[i - 1]!.to)
    expect(found.at(-1)!.to).toBeCloseTo(1, 9)
    expect(layers({})).toEqual([])
  })
  it('never writes one label on another, and none outside the jar', () => {
    const places = labelPlaces([10, 12, 13, 150, 198, 199], 20, 200)
    for (let i = 1; i < places.length; i++)
      expect(places[i]! - places[i - 1]!).toBeGreaterThanOrEqual(20)
    expect(Math.max(...places)).toBeLessThanOrEqual(200)
    expect(labelPlaces([20, 100], 20, 200)).toEqual([20, 100])
  })
  it('tells the yield with its range only where amounts leave one', () => {
    const made = {
      yield_g: 260,
      yield_ml: 215,
      yield_low_g: 259,
      yield_high_g: 261,
      simmered: null,
    }
    expect(yieldWords(made)).toBe('260 g, about 215 ml')
    expect(yieldWords({ ...made, yield_low_g: 240, yield_high_g: 290 })).toBe(
      '260 g (240 to 290), about 215 ml',
    )
    expect([0.345, 0.08, 0.006].map(percent)).toEqual(['35 %', '8 %', '0.6 %'])
  })
  it('takes a sauce from a file, and from a wrong one nothing that would break the page', () => {
    expect(fromFile({ lines: ['1 cup ketchup'], kind: 'rub' }, 'file')).toMatchObject({
      name: 'file',
      kind: 'rub',
      lines: ['1 cup ketchup'],
      moves: [],
    })
    expect(
      fromFile(
        { name: 'x', lines: ['a'], own: {}, moves: 'no', kind: 'soup', simmer: 7 } as never,
        'file',
      ),
    ).toMatchObject({ kind: 'glaze', own: [], moves: [], simmer: null })
    for (const bad of [{}, { lines: 'ketchup' }, { lines: [1, 2] }])
      expect(() => fromFile(bad as never, 'f')).toThrow()
  })
})

describe('an ingredient by hand', () => {
  it('leaves the rest to fibre and starch, and is none where its parts are more than there is', () => {
    const { item, rest } = ownByHand(
      'Aunt’s Pepper jelly',
      { water: 30, sucrose: 55.5, salt: null },
      1.3,
      ['celery'],
    )
    expect(rest).toBe(14.5)
    expect(item).toEqual({
      key: 'aunt-s-pepper-jelly',
      name: 'Aunt’s Pepper jelly',
      fractions: { water: 0.3, sucrose: 0.555, salt: 0, other: 0.145 },
      density_kg_l: 1.3,
      group: 'sauce',
      allergens: ['celery'],
    })
    expect(Object.values(item!.fractions).reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9)
    for (const [name, parts, density] of [
      ['x', { water: 80, fat: 30 }, 1],
      ['x', { water: -5 }, 1],
      ['🍯', { water: 5 }, 1],
      ['x', { water: 5 }, 9],
    ] as const)
      expect(ownByHand(name, parts, density, []).item).toBeUndefined()
  })
})

describe('the ledger', () => {
  it('makes steps of portions and reads them back', () => {
    const portions = [
      portion('coats', 'coat', 150),
      portion('table', 'table', 80),
      portion('in the pot', 'cook-in', 60),
      portion('marinade', 'raw', 200, { later: true, boil: true }),
      portion('rub bowl', 'rub', 40),
    ]
    const moves = movesOf(portions)
    expect(portionsOf(moves)).toEqual(portions)
    const kinds = moves.filter((m) => m.portion === 'marinade').map((m) => m.kind)
    expect(kinds).toEqual(['touch', 'boil', 'serve'])
    expect(moves.filter((m) => m.portion === 'rub bowl').map((m) => m.kind)).toEqual(['touch'])
    expect(leftInBowl(500, portions)).toBe(-30)
  })
  it('serves nothing that touched raw food unless somebody wants it, and boils only what is to be boiled', () => {
    for (const use of ['raw', 'rub', 'cook-in', 'coat', 'table'] as const) {
      const kinds = movesOf([portion('p', use)]).map((m) => m.kind)
      expect(kinds.includes('serve')).toBe(!touchesRaw(use))
      expect(kinds).not.toContain('boil')
    }
  })
  it('draws a band as thick as it is heavy, and stops it before the plate', () => {
    const portions = [
      portion('marinade', 'raw', 300, { later: true }),
      portion('table', 'table', 100),
    ]
    const ledger = {
      portions: [
        { name: 'marinade', mass_g: 300, contact: 'raw-contact' },
        { name: 'table', mass_g: 0, contact: 'clean' },
      ],
      flows: [{ place: 1, source: 'table', target: 'plate', mass_g: 100, contact: 'clean' }],
      stops: [{ place: 3, portion: 'marinade', why: 'it touched raw food', boil_min: 4 }],
      served_g: 100,
      guidance: '',
    } as unknown as Ledger
    const [raw, table] = bands(portions, ledger, 240)
    expect([raw!.end, table!.end]).toEqual(['stopped', 'plate'])
    expect(raw!.height / table!.height).toBeCloseTo(3, 5)
    expect(table!.y).toBeGreaterThan(raw!.y + raw!.height)
  })
})

describe('ingredient lines', () => {
  const open = (lines: string[], read = lines.filter(Boolean).map((l) => line(l, 60))) => {
    const page = mount(LineList, {
      props: {
        modelValue: lines,
        read,
        'onUpdate:modelValue': (next: string[]) => page.setProps({ modelValue: next }),
      },
      attachTo: document.body,
    })
    return page
  }
  const texts = (page: ReturnType<typeof open>) => page.findAll('input').map((i) => i.element.value)

  it('adds a line below by Enter and takes an empty one away by Backspace', async () => {
    const page = open(['a', 'b'])
    await page.get("[data-test='line-0']").trigger('keydown', { key: 'Enter' })
    expect(texts(page)).toEqual(['a', '', 'b'])
    expect(document.activeElement).toBe(page.get("[data-test='line-1']").element)
    await page.get("[data-test='line-1']").trigger('keydown', { key: 'Backspace' })
    expect(texts(page)).toEqual(['a', 'b'])
    await page.get("[data-test='line-0']").trigger('keydown', { key: 'Backspace' })
    expect(texts(page)).toEqual(['a', 'b'])
    page.unmount()
  })
  it('makes lines of a pasted list and keeps those that were there', async () => {
    const page = open(['salt', ''])
    const clipboardData = { getData: () => '1 cup ketchup\r\n\n 2 tbsp soy sauce \n' }
    await page.get("[data-test='line-1']").trigger('paste', { clipboardData })
    expect(texts(page)).toEqual(['salt', '1 cup ketchup', '2 tbsp soy sauce'])
    page.unmount()
  })
  it('takes none of a list that is too long, and says so', async () => {
    const page = open(['salt'])
    await page
      .get("[data-test='line-0']")
      .trigger('paste', { clipboardData: { getData: () => '1 g honey\n'.repeat(500) } })
    expect(texts(page)).toEqual(['salt'])
    expect(page.get('[role=alert]').text()).toContain('500 lines are too many')
    page.unmount()
  })
  it('shows a weight only beside the line that it was read from', () => {
    const page = open(
      ['', '2 tbsp soy sauce', '1 cup hon'],
      [line('2 tbsp soy sauce', 36), line('1 cup honey', 340)],
    )
    expect(page.findAll('.mass').map((m) => m.text())).toEqual(['', '36 g', ''])
    page.unmount()
  })
  it('marks a line that is too long, whatever it is made of', () => {
    const text = '9 cups honey 🍯 '.repeat(40).trim()
    const page = open(
      [text],
      [
        line([...text].slice(0, 200).join(''), null, {
          problem: '639 characters; up to 200 can be read',
        }),
      ],
    )
    expect(page.get('.note').text()).toContain('up to 200 can be read')
    expect(page.get('input').element.value).toBe(text)
    page.unmount()
  })
  it('marks what was not understood and puts a suggestion in its place', async () => {
    const page = open(
      ['3 tbsp huney'],
      [
        line('3 tbsp huney', null, {
          problem: 'I do not know “huney”',
          suggestions: ['honey'],
          unknown: 'huney',
        }),
      ],
    )
    expect(page.get('.note').text()).toContain('Not counted: I do not know “huney”')
    await page.get('.note button').trigger('click')
    expect(texts(page)).toEqual(['3 tbsp honey'])
    page.unmount()
  })
})
