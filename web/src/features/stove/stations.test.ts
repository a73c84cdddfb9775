import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { broiling, glaze, live, step } from '@/__tests__/kitchen'
import type { Live } from '@/api/client'
import StationButtons from './StationButtons.vue'
import { acts, look } from './stations'

/** Three coats and a turn; the first coat was on before, the second was just brushed. */
const strip = {
  ...glaze,
  coats: [0, 90, 200].map((at_s) => ({ at_s, away_s: 0 })),
  flips_s: [150],
}
const under: Live = {
  ...live,
  fire: broiling,
  current: 'broil.2',
  button: 'Out: turn it',
  looks_s: [50, 100, 150],
  steps: [
    step('broil.1', 'confirmed', { who: 'fire', fire: 'broil' }),
    step('broil.coat-2', 'confirmed', { act: 'coat' }),
    step('made', 'current', { beside: true, act: 'coat' }),
    step('broil.2', 'current', { who: 'fire', fire: 'broil' }),
    step('broil.turn', 'upcoming', { act: 'turn' }),
    step('broil.3', 'upcoming', { who: 'fire', fire: 'broil' }),
    step('broil.coat-3', 'upcoming', { act: 'coat' }),
    step('broil.4', 'upcoming', { who: 'fire', fire: 'broil' }),
    step('broil.out', 'upcoming'),
    step('fry.1', 'upcoming', { who: 'fire', fire: 'fry' }),
    step('fry.coat-4', 'upcoming', { act: 'coat' }),
  ],
}
const told = (cook: Live) => acts(cook, strip).map((one) => `${one.says} ${one.state}`)

describe('the stations of a strip', () => {
  it('are what was done, what is next and what comes later, and nothing of another heat', () => {
    expect(told(under)).toEqual(['coat 1 done', 'coat 2 done', 'turn next', 'coat 3 later'])
  })

  it('are no buttons where the wide button does something else', () => {
    const none = (more: Partial<Live>) => told({ ...under, ...more }).filter((s) => /next/.test(s))
    expect(none({ fire: { ...broiling, assumed: true } })).toEqual([])
    expect(none({ fire: null })).toEqual([])
    expect(none({ current: 'broil.turn' })).toEqual([])
    expect(none({ gate: { step: 'check', tender: true, wants_c: null, rests_on: '' } })).toEqual([])
  })

  it('are one where a coat and a turn want one moment', () => {
    const both = step('broil.both', 'upcoming', { act: 'coat and turn' })
    const cook = { ...under, steps: [under.steps[3]!, both] }
    const found = acts(cook, { ...strip, coats: strip.coats.slice(0, 2), flips_s: [90] })
    expect(found.map((one) => `${one.says} ${one.state}`)).toEqual([
      'coat 1 done',
      'coat 2, turn next',
    ])
  })

  it('ask for the look that is over untold, else for the next', () => {
    const seen = (at_s: number) => ({ ...strip, seen: [{ at_s, sign: 'bubbling', site: 'face' }] })
    expect(look(under, strip, 20)?.at_s).toBe(50)
    expect(look(under, strip, 120)?.at_s).toBe(100)
    expect(look(under, seen(120), 121)?.at_s).toBe(150)
    expect(look(under, seen(151), 160)).toBeUndefined()
  })
})

describe('their buttons', () => {
  const shown = (cook: Live, width: number) =>
    mount(StationButtons, {
      props: { cook, glaze: strip, bare: false, underS: 60, left: 52, width, until: 900 },
    })

  it('do what the wide button does, and ask what a look saw', async () => {
    const page = shown(under, 300)
    const act = page.get("[data-test='station-act']")
    expect(act.attributes('aria-label')).toBe('turn 2:30: Out: turn it')
    await act.trigger('click')
    await page.get("[data-test='station-look']").trigger('click')
    await page.get("[data-test='saw-bubbling']").trigger('click')
    expect(page.find("[data-test='station-signs']").exists()).toBe(false)
    expect(page.emitted('told')).toEqual([
      [{ kind: 'done', step: 'broil.2' }],
      [{ kind: 'saw', sign: 'bubbling' }],
    ])
  })

  it('keep apart, in the order of their moments and on the strip, however narrow it is', () => {
    for (const width of [220, 300, 700, 1200]) {
      const page = shown(under, width)
      const left = (name: string) =>
        parseFloat(page.get<HTMLElement>(`[data-test='${name}']`).element.style.left)
      const [seen, act] = [left('station-look'), left('station-act')]
      expect(act - seen).toBeGreaterThanOrEqual(104)
      expect(seen).toBeGreaterThanOrEqual(0)
      expect(act + 104).toBeLessThanOrEqual(52 + width)
    }
  })
})
