import { afterEach, describe, expect, it, vi } from 'vitest'
import { flushPromises, mount } from '@vue/test-utils'
import { cook, plan, serve, show, summary } from '@/__tests__/kitchen'
import type { Cook } from '@/api/client'
import CompareStages from './CompareStages.vue'
import CookPage from './CookPage.vue'
import LogPage from './LogPage.vue'
import { difference, outcomeWords } from './words'

afterEach(() => vi.unstubAllGlobals())

describe('the log', () => {
  it('lists cooks with what was planned, what it took, and what nobody told', async () => {
    const silent = {
      ...summary,
      id: 4,
      actual_s: null,
      outcome: null,
      ended_at: null,
      strip: { ...summary.strip, pulled_s: null },
    }
    serve({ 'GET /cooks': [200, { cooks: [summary, silent] }] })
    const { page } = await show(LogPage, '/log')
    const first = page.get("[data-test='cook-3']")
    expect(first.text()).toContain('fell apart, sticky, amber')
    expect(first.text()).toContain('1 step nobody confirmed')
    expect(first.attributes('href')).toBe('/log/3')
    const second = page.get("[data-test='cook-4']")
    expect(second.attributes('href')).toBe('/stove/4')
    expect(second.text()).toContain('not out yet')
  })

  it('has an empty state and an error state that asks again', async () => {
    serve({ 'GET /cooks': [200, { cooks: [] }] })
    expect((await show(LogPage, '/log')).page.text()).toContain('No cook yet.')
    let away = true
    serve({ 'GET /cooks': () => (away ? 'away' : [200, { cooks: [summary] }]) })
    const { page } = await show(LogPage, '/log')
    expect(page.get('[role=alert]').text()).toContain('does not answer')
    away = false
    await page.get('[role=alert] button').trigger('click')
    await flushPromises()
    expect(page.find("[data-test='cook-3']").exists()).toBe(true)
  })

  it('opens one cook, and cooks it again without its old serving time', async () => {
    localStorage.clear()
    serve({ 'GET /cooks/3': [200, cook] })
    const { page, router } = await show(CookPage, '/log/3')
    expect(page.get("[data-test='moved']").text()).toContain('for the air fryer')
    expect(page.text()).toContain('One coat next time.')
    expect(page.text()).toContain('Planned 1 h 30 min, took 1 h 33 min.')
    await page.get("[data-test='again']").trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.path).toBe('/plan')
    expect(JSON.parse(localStorage.getItem('kettle-chain')!)).toMatchObject({
      food: { cut: 'beef-short-ribs' },
      serve_at: null,
    })
  })

  it('cooks it again in the kitchen as that is now', async () => {
    localStorage.clear()
    const anew = { ...plan(), kitchen: { altitude_m: 300 } } as unknown as Cook['again']
    serve({ 'GET /cooks/3': [200, { ...cook, again: anew }] })
    const { page } = await show(CookPage, '/log/3')
    await page.get("[data-test='again']").trigger('click')
    const begun = JSON.parse(localStorage.getItem('kettle-chain')!)
    expect(begun.kitchen).toEqual({ altitude_m: 300 })
  })

  it('says what a cook taught, and forgets a sign', async () => {
    const sign = {
      id: 31,
      ground: 'food',
      sign: 'amber at the edges',
      at_s: 70,
      dial: 0.15,
      sauce: 'plum and black tea',
      made_at: '2030-05-04T17:00:00Z',
      forgotten: false,
      cook_id: 3,
    }
    const lesson = (forgotten: boolean) => ({
      appliance_id: 2,
      appliance: 'its broiler',
      observations: [{ ...sign, forgotten }],
      before: { low_s: 200, likely_s: 400, high_s: 800 },
      after: forgotten
        ? { low_s: 200, likely_s: 400, high_s: 800 }
        : { low_s: 180, likely_s: 300, high_s: 480 },
      says: forgotten ? 'not calibrated' : 'fiercer than typical: 1.30 times the typical heat',
    })
    let forgotten = false
    const asked = serve({
      'GET /cooks/3': [200, cook],
      'GET /cooks/3/lessons': () => [200, { appliances: [lesson(forgotten)] }],
      'DELETE /kitchen/observations/31': () => {
        forgotten = true
        return [200, {}]
      },
    })
    const { page } = await show(CookPage, '/log/3')
    const taught = page.get("[data-test='taught-2']")
    expect(taught.text()).toContain('Its broiler')
    expect(taught.text()).toContain('Fiercer than typical: 1.30 times')
    expect(taught.text()).toContain('mahogany at 6:40 (3:20 to 13:20); now at 5:00 (3:00 to 8:00)')
    await page.get("[data-test='forget-31']").trigger('click')
    await flushPromises()
    expect(asked.map((one) => `${one.method} ${one.path}`)).toContain(
      'DELETE /kitchen/observations/31',
    )
    expect(page.get("[data-test='forget-31']").text()).toBe('count it again')
    expect(page.get("[data-test='taught-2']").text()).toContain('Not calibrated')
  })

  it('says a cook that is not there', async () => {
    serve({})
    expect((await show(CookPage, '/log/9')).page.get('[role=alert]').text()).toContain(
      'there is none',
    )
  })

  it('compares stages; what nobody told has no figure', () => {
    const table = mount(CompareStages, { props: { stages: cook.stages } })
    expect(table.get("[data-test='compare-hold']").text()).toContain('as planned')
    expect(table.get("[data-test='compare-open']").text()).toContain('nobody said')
    expect(table.get("[data-test='compare-open']").find('.actual').exists()).toBe(false)
    expect(table.get("[data-test='compare-finish']").text()).toContain('3 min longer')
    expect([difference(null, 60), difference(100, 170), difference(10, 15)]).toEqual([
      '',
      '70 s less',
      'as planned',
    ])
    expect(outcomeWords({ ...summary, outcome: null })).toBe('nobody said how it was')
    const some = { tenderness: '', crust: 'sticky', colour: 'amber', note: '', recorded_at: '' }
    expect(outcomeWords({ ...summary, outcome: some })).toBe('sticky, amber')
  })
})
