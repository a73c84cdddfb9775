import { describe, expect, it } from 'vitest'
import type { Stage } from '@/api/client'
import { besideLink, fillOf, links } from './links'
import { minutesOf } from './minutes'

describe('minutes', () => {
  it('are read as people list them', () => {
    expect(['2, 5', '5 2.5', '2,5', '0; 3,5', '', ' 4, '].map(minutesOf)).toEqual([
      [2, 5],
      [2.5, 5],
      [2.5],
      [0, 3.5],
      [],
      [4],
    ])
    expect(['soon', '-1', '2, x'].map(minutesOf)).toEqual([undefined, undefined, undefined])
  })
})

describe('the line', () => {
  const stage = (key: string, likely: number, before: number, more: Partial<Stage> = {}) =>
    ({
      key,
      who: 'machine',
      hidden: true,
      serial: true,
      band: { low_s: likely, likely_s: likely, high_s: likely },
      before_serving: { low_s: before, likely_s: before, high_s: before },
      ...more,
    }) as Stage
  const stages = [
    stage('a', 100, 400),
    stage('heat', 50, 250, { serial: false }),
    stage('b', 300, 300),
  ]
  it('is as long as its minutes, with what runs beside it in its place', () => {
    expect(links(stages, 800).map((l) => [l.stage.key, l.x, l.width])).toEqual([
      ['a', 0, 200],
      ['b', 200, 600],
    ])
    expect(besideLink(stages[1]!, stages, 800)).toMatchObject({ x: 300, width: 100 })
  })
  it('tells hidden waits from timers, hands and fire', () => {
    expect(fillOf(stage('x', 1, 1))).toBe('wait')
    expect(fillOf(stage('x', 1, 1, { hidden: false }))).toBe('timer')
    expect(fillOf(stage('x', 1, 1, { who: 'hands' }))).toBe('hands')
    expect(fillOf(stage('x', 1, 1, { who: 'fire', hidden: false }))).toBe('fire')
  })
})
