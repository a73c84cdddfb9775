import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { afterAll, describe, expect, it } from 'vitest'
import type { Schedule } from '@/api/client'
import AwayField from './AwayField.vue'
import NightNote from './NightNote.vue'
import { nightOf, withAway, wokenBy, type Away } from './nights'

const ZONE = process.env.TZ
process.env.TZ = 'CET' // clocks change on 27 October 2030 and 31 March 2030
afterAll(() => {
  if (ZONE === undefined) delete process.env.TZ
  else process.env.TZ = ZONE
})

const hours = (one: Away) =>
  (new Date(one.end).getTime() - new Date(one.start).getTime()) / 3_600_000
const act = (at: string, pair: number | null = 0) =>
  ({ hands_at: at, pair }) as Schedule['tasks'][number]

describe('a night', () => {
  it('is eight hours of the clock on the wall, and nine or seven where that is changed', () => {
    const usual = nightOf('2030-10-20T13:00:00+02:00')
    expect(usual).toEqual({ start: '2030-10-19T21:00:00.000Z', end: '2030-10-20T05:00:00.000Z' })
    expect(hours(usual)).toBe(8)
    const longer = nightOf('2030-10-27T13:00:00+01:00')
    expect(longer).toEqual({ start: '2030-10-26T21:00:00.000Z', end: '2030-10-27T06:00:00.000Z' })
    expect(hours(nightOf('2030-03-31T13:00:00+02:00'))).toBe(7)
  })
  it('is that of its own evening, before midnight and after', () => {
    const start = '2030-10-19T21:00:00.000Z'
    expect(nightOf('2030-10-19T23:00:00+02:00').start).toBe(start)
    expect(nightOf('2030-10-20T06:59:00+02:00').start).toBe(start)
    expect(nightOf('2030-10-20T22:59:00+02:00').start).toBe(start)
  })
  it('is told where hands are wanted in it, but not to who is up', () => {
    const now = new Date('2030-10-26T18:00:00+02:00')
    const tasks = [act('2030-10-27T05:00:00+01:00'), act('2030-10-27T02:30:00+01:00', null)]
    const woken = wokenBy([act('2030-10-27T12:00:00+01:00'), ...tasks], now)!
    expect(woken.at).toEqual(new Date('2030-10-27T05:00:00+01:00'))
    expect(woken.nights.map((one) => one.start)).toEqual(['2030-10-26T21:00:00.000Z'])
    expect(wokenBy(tasks, new Date('2030-10-27T00:30:00+02:00'))).toBeUndefined()
    expect(wokenBy([act('2030-10-27T07:00:00+01:00')], now)).toBeUndefined()
    const page = mount(NightNote, { props: { tasks, now }, global: { plugins: [ElementPlus] } })
    expect(page.text()).toContain('Hands are wanted at 05:00 tomorrow.')
    expect(page.get("[data-test='sleep']").text()).toBe('Asleep 23:00 to 07:00')
  })
})

describe('when nobody is at work', () => {
  const now = new Date('2030-10-26T12:00:00+02:00')
  const night = nightOf('2030-10-27T13:00:00+01:00')
  const over = nightOf('2030-10-26T13:00:00+02:00')
  const field = (spans: Away[]) =>
    mount(AwayField, {
      props: { spans, supper: '2030-10-27T13:00:00+01:00', now },
      global: { plugins: [ElementPlus] },
    })
  it('takes each span once and drops what is over', () => {
    expect(withAway([over, night], [night], now)).toEqual([night])
    const again = { start: '2030-10-26T23:00:00+02:00', end: '2030-10-27T07:00:00+01:00' }
    expect(withAway([night], [again], now)).toHaveLength(1)
  })
  it('offers the night before supper, shows what is told, and takes it back', async () => {
    const page = field([over])
    expect(page.findAll('li')).toHaveLength(0)
    const offered = page.get("[data-test='night']")
    expect(offered.text()).toBe('today 23:00 to tomorrow 07:00')
    await offered.trigger('click')
    expect(page.emitted('change')).toEqual([[[night]]])
    const told = field([night])
    expect(told.find("[data-test='night']").exists()).toBe(false)
    expect(told.get('li').text()).toContain('today 23:00 to tomorrow 07:00')
    await told.get('li button').trigger('click')
    expect(told.emitted('change')).toEqual([[[]]])
  })
  it('takes no span that ends before it begins', async () => {
    const page = field([])
    await page.get("[data-test='away']").trigger('click')
    const take = () => page.get("[data-test='take-away']")
    expect(take().attributes('disabled')).toBeUndefined()
    const pickers = page.findAllComponents({ name: 'ElDatePicker' })
    pickers[1]!.vm.$emit('update:modelValue', new Date('2030-10-26T11:00:00+02:00'))
    await page.vm.$nextTick()
    expect(page.text()).toContain('The second moment comes after the first.')
    await take().trigger('click')
    expect(page.emitted('change')).toBeUndefined()
    pickers[1]!.vm.$emit('update:modelValue', new Date('2030-10-26T16:30:00+02:00'))
    await page.vm.$nextTick()
    await take().trigger('click')
    const span = { start: '2030-10-26T11:00:00.000Z', end: '2030-10-26T14:30:00.000Z' }
    expect(page.emitted('change')).toEqual([[[span]]])
  })
})
