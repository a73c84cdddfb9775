import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Answers } from '@/api/client'
import { choices, live, serve, show } from '@/__tests__/kitchen'
import StartPage from './StartPage.vue'

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

const offer = (key: string) => ({ key, place: `with ${key}`, hint: '', usual: key === 'pressure' })
const begun = (body: unknown) => {
  const { cut, heat, when } = body as Answers
  return {
    chain: { food: { cut }, stages: [{ kind: 'heat', id: 'cook', heat }], name: when ?? '' },
    heats: [offer('pressure'), offer('oven')],
    finishes: [offer('air_fryer')],
    bites: [],
    whens: ['before', 'after'],
  }
}
const kitchen = {
  'GET /choices': [200, choices],
  'GET /cooks': [200, { cooks: [] }],
  'GET /plans': [200, { plans: [] }],
  'GET /sauces': [200, { sauces: [] }],
  'POST /beginnings': (body: unknown) => [200, begun(body)],
  'POST /forecasts': [500, { title: 'no', status: 500, detail: '', errors: [] }],
  'POST /beginnings/heat-times': [
    200,
    {
      items: [
        { key: 'pressure', total_s: 5220 },
        { key: 'oven', total_s: null },
      ],
    },
  ],
} as never as Parameters<typeof serve>[0]

async function open(answers = kitchen) {
  const asked = serve(answers)
  const { page, router } = await show(StartPage)
  const tap = async (name: string, settle = true) => {
    await page.get(`[data-test='tap-${name}']`).trigger('click')
    await flushPromises()
    if (settle) vi.advanceTimersByTime(400)
    await flushPromises()
  }
  return { asked, page, router, tap }
}
const FIRST = ['cut-octopus', 'state-frozen', 'mass-1.4', 'thickness-45']
const LAST = ['heat-pressure', 'bite-tug', 'finish-air_fryer', 'sauce-plum-tea', 'when-after']

describe('the first page', () => {
  it('takes nine taps to a chain, and an answer can be changed on the way', async () => {
    const { page, router, tap } = await open()
    for (const name of [...FIRST, ...LAST.slice(0, -1)]) await tap(name)
    await page.get('button[aria-label="change state: the freezer"]').trigger('click')
    expect(page.get('.question').text()).toBe('Fridge or freezer?')
    vi.advanceTimersByTime(400)
    await flushPromises()
    await tap('state-fridge')
    // What was answered is not asked again.
    expect(page.get('.question').text()).toBe('When does the sauce go on?')
    await tap('when-after')
    expect(router.currentRoute.value.path).toBe('/plan')
    expect(JSON.parse(localStorage.getItem('kettle-chain')!)).toMatchObject({
      food: { cut: 'octopus' },
      name: 'after',
    })
  })

  it('tells the hours of each heat, and which one never gets there', async () => {
    const { page, tap } = await open()
    for (const name of FIRST) await tap(name)
    expect(page.get("[data-test='tap-heat-pressure']").text()).toContain('1 h 27 min')
    expect(page.get("[data-test='tap-heat-pressure']").text()).toContain('usual')
    expect(page.get("[data-test='tap-heat-oven']").text()).toContain('never gets there')
  })

  it('takes no second tap of the same finger', async () => {
    const { page, tap } = await open()
    await tap('cut-octopus', false)
    await tap('state-frozen')
    expect(page.get('.question').text()).toBe('Fridge or freezer?')
  })

  it('keeps the answers when the server is away, and goes on where it was', async () => {
    let away = false
    const { page, tap } = await open({
      ...kitchen,
      'POST /beginnings': (body: unknown) => (away ? 'away' : [200, begun(body)]) as never,
    })
    await tap('cut-octopus')
    away = true
    await tap('state-frozen')
    expect(page.text()).toContain('The kettle does not answer')
    expect(page.get('.question').text()).toBe('Fridge or freezer?')
    away = false
    await tap('state-frozen')
    expect(page.get('.question').text()).toBe('How much is it?')
    const again = await open()
    expect(again.page.get('.question').text()).toBe('How much is it?')
  })

  it('says first what is next: every live cook before a kept plan', async () => {
    const answers = {
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [{ id: 2, title: 'Octopus, plain', dish: {} }] }],
    } as const
    const cooks = [{ ...live, id: 8 }, live]
    serve({ ...answers, 'GET /cooks/live': [200, { cooks, suppers: [], aside: [] }] } as never)
    const on = (await show(StartPage)).page
    await flushPromises()
    expect(on.text()).toContain('2 on the stove.')
    expect(on.get("[data-test='to-8']").attributes('href')).toBe('/stove/8')
    serve({ ...answers, 'GET /cooks/live': [200, { cooks: [], suppers: [], aside: [] }] } as never)
    const { page } = await show(StartPage)
    await flushPromises()
    expect(page.text()).toContain('Planned: Octopus, plain')
    expect(page.text()).not.toContain('on the stove')
  })
})
