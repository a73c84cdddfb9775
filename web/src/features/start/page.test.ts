import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { choices, live, serve, show } from '@/__tests__/kitchen'
import StartPage from './StartPage.vue'

beforeEach(() => localStorage.clear())
afterEach(() => vi.unstubAllGlobals())

describe('the first page', () => {
  it('takes nine taps to a plan, and an answer can be changed on the way', async () => {
    serve({
      'GET /choices': [200, choices],
      'GET /cooks': [200, { cooks: [] }],
      'GET /plans': [200, { plans: [] }],
    })
    const { page, router } = await show(StartPage)
    const tap = async (name: string) => {
      await page.get(`[data-test='tap-${name}']`).trigger('click')
      await flushPromises()
    }
    for (const name of [
      'cut-octopus',
      'state-frozen',
      'mass-1.4',
      'thickness-45',
      'tenderise-pressure',
      'bite-tug',
      'finish-air_fryer',
      'sauce-plum-tea',
    ])
      await tap(name)
    await page.get('button[aria-label="change state: the freezer"]').trigger('click')
    expect(page.get('.question').text()).toBe('Fridge or freezer?')
    for (const name of [
      'state-fridge',
      'mass-1.4',
      'thickness-45',
      'tenderise-pressure',
      'bite-tug',
      'finish-air_fryer',
      'sauce-plum-tea',
      'serve-none',
    ])
      await tap(name)
    expect(router.currentRoute.value.path).toBe('/plan')
    expect(JSON.parse(localStorage.getItem('kettle-draft')!)).toMatchObject({
      cut: 'octopus',
      state: 'fridge',
      pieces: 8,
      bite: 'tug',
      finish: 'air_fryer',
      coats: 1,
    })
  })

  it('says first what is next: every live cook before a kept plan', async () => {
    const answers = {
      'GET /choices': [200, choices],
      'GET /plans': [200, { plans: [{ id: 2, title: 'Octopus, plain' }] }],
    } as const
    const cooks = [{ ...live, id: 8 }, live]
    serve({ ...answers, 'GET /cooks/live': [200, { cooks, aside: [] }] } as never)
    const on = (await show(StartPage)).page
    await flushPromises()
    expect(on.text()).toContain('2 on the stove.')
    expect(on.get("[data-test='to-8']").attributes('href')).toBe('/stove/8')
    serve({ ...answers, 'GET /cooks/live': [200, { cooks: [], aside: [] }] } as never)
    const { page } = await show(StartPage)
    await flushPromises()
    expect(page.text()).toContain('Planned: Octopus, plain')
    expect(page.text()).not.toContain('on the stove')
  })
})
