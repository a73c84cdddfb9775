import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Glaze } from '@/api/client'
import GlazeStrip from './GlazeStrip.vue'
import {
  bracket,
  clockVerdict,
  line,
  milestoneWord,
  shownSeconds,
  stops,
  stretches,
  ticks,
} from './glaze'

const band = (likely: number | null) => ({
  low_s: likely && likely * 0.7,
  likely_s: likely,
  high_s: likely && likely * 1.4,
  reached: 1,
})
const site = (k: number) => ({
  set: band(60 * k),
  bubbling: band(80 * k),
  amber: band(200 * k),
  mahogany: band(300 * k),
  bitter: band(420 * k),
  burnt: band(600 * k),
  crisp: band(null),
})
const samples = Array.from({ length: 121 }, (_, i) => i * 10)
const glaze = {
  appliance: 'broiler',
  appliance_name: 'broiler',
  flips_s: [],
  back: null,
  want: 'amber',
  caramelises: true,
  horizon_s: 1200,
  sample_s: samples,
  face: samples.map(() => '#804020'),
  edge: samples.map(() => '#402010'),
  risk: samples.map((t) => Math.min(1, t / 1000)),
  wanted: samples.map((t) => (t > 200 && t < 400 ? 0.5 : 0)),
  coats: [
    { at_s: 0, away_s: 0 },
    { at_s: 90, away_s: 60 },
  ],
  milestones: { face: site(1), edge: site(0.6) },
  window: { opens_s: 200, closes_s: 260, empty: false, hit: 0.6 },
  gaps: [],
  look_from_s: 50,
  look_every_s: 10,
  possible: 1,
  calls: [],
  looks_s: [],
  seen: [],
  legend: [],
} as unknown as Glaze

describe('the glaze strip', () => {
  it('shows a little beyond the spoiling and never beyond what was computed', () => {
    expect(shownSeconds(glaze)).toBe(540)
    expect(shownSeconds({ ...glaze, horizon_s: 300 })).toBe(300)
  })
  it('names the stretches in order without gaps', () => {
    const found = stretches(glaze, 'face', 540)
    expect(found.map((s) => s.word)).toEqual(['wet', 'amber', 'mahogany', 'bitter'])
    found.slice(1).forEach((s, i) => expect(s.from).toBe(found[i]!.to))
    expect(stretches({ ...glaze, caramelises: false }, 'face', 540)[1]!.word).toBe('browned')
    expect(milestoneWord('set', false)).toBe('set')
  })
  it('fades the bracket by the chance itself, smoothed, and keeps the axis readable', () => {
    const found = bracket(glaze, 540)
    const at = (seconds: number) =>
      found.reduce((a, b) =>
        Math.abs(b.offset * 540 - seconds) < Math.abs(a.offset * 540 - seconds) ? b : a,
      ).chance
    expect(at(100)).toBe(0)
    expect(at(300)).toBeCloseTo(0.5)
    expect(at(200)).toBeGreaterThan(0.1) // no hard edge: it rises over a few samples
    expect(at(200)).toBeLessThan(0.4)
    expect(line([0, 1], [0, 540], 540, 100, 10, 50)).toBe('0.0,60.0 100.0,10.0')
    expect(stops(glaze.face, samples, 540).length).toBeLessThanOrEqual(80)
    for (const until of [90, 540, 3600, 10_800]) expect(ticks(until).length).toBeLessThanOrEqual(12)
  })
  it('says where the clock alone is not enough, and how often it is', () => {
    expect(clockVerdict(glaze)).toBe('by the clock: right 5 times in 10')
    const none = { ...glaze, window: { ...glaze.window, empty: true } }
    expect(clockVerdict(none)).toBe('no window by the clock: right 5 times in 10 at best')
  })
  it('pins what was seen', () => {
    const seen = [{ sign: 'amber at the edges', at_s: 68, site: 'edge' }]
    const strip = mount(GlazeStrip, { props: { glaze: { ...glaze, seen } } })
    expect(strip.get('.pin text').text()).toBe('amber edges 1:08')
  })
  it('writes no sign over another', () => {
    const seen = [
      { sign: 'bubbling', at_s: 60, site: 'edge' },
      { sign: 'amber at the edges', at_s: 68, site: 'edge' },
    ]
    const pins = mount(GlazeStrip, { props: { glaze: { ...glaze, seen } } }).findAll('.pin')
    expect(pins.map((pin) => pin.find('text').exists())).toEqual([false, true])
    expect(pins[0]!.get('title').text()).toBe('bubbling 1:00')
  })
  it('is told in words to who cannot see it, and marks now and coats', () => {
    const strip = mount(GlazeStrip, { props: { glaze, nowS: 100 } })
    expect(strip.get('svg[role=img]').attributes('aria-label')).toContain(
      'face: wet from 0:00, amber from 3:20',
    )
    expect(strip.findAll('.coat')).toHaveLength(2)
    expect(strip.find('.now').exists()).toBe(true)
    expect(
      mount(GlazeStrip, { props: { glaze, compact: true } })
        .find('.risk')
        .exists(),
    ).toBe(false)
  })
})
