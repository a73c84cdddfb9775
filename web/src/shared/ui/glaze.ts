import type { Glaze } from '@/api/client'
import { often } from '@/shared/format/share'

/** Arithmetic of the glaze strip: places, marks and words. No physics; the server sends curves and bounds. */

export interface Mark {
  word: string
  low: number
  likely: number
  high: number
}

export interface Stretch {
  word: string
  from: number
  to: number
  pattern: string
}

const COLOUR_WORDS = ['amber', 'mahogany', 'bitter', 'burnt'] as const
const BARE_WORDS: Record<string, string> = {
  amber: 'browned',
  mahogany: 'well browned',
  bitter: 'too dark',
  burnt: 'scorched',
}

/** The word for a milestone; a surface without sugar has no caramel colours. */
export function milestoneWord(name: string, caramelises: boolean): string {
  return caramelises ? name : (BARE_WORDS[name] ?? name)
}

/** How much of the horizon is worth drawing: up to a little after the edge is burnt or the face is bitter. */
export function shownSeconds(glaze: Glaze): number {
  const edge = glaze.milestones['edge']?.['burnt']?.likely_s
  const face = glaze.milestones['face']?.['bitter']?.likely_s
  const last = Math.max(
    edge ?? 0,
    face ?? 0,
    (glaze.milestones['face']?.[glaze.want]?.likely_s ?? 0) * 1.2,
    glaze.pull?.high_s ?? 0,
  )
  if (!last) return glaze.horizon_s
  return Math.min(glaze.horizon_s, Math.ceil((last * 1.25) / 60) * 60)
}

/** Stretches of a site by colour word, from the likely moments. */
export function stretches(glaze: Glaze, site: string, until: number): Stretch[] {
  const found: Stretch[] = []
  let from = 0
  let word = 'wet'
  for (const name of COLOUR_WORDS) {
    const at = glaze.milestones[site]?.[name]?.likely_s
    if (at === null || at === undefined) break
    if (at > from && from < until)
      found.push({ word: wordOf(word, glaze), from, to: Math.min(at, until), pattern: word })
    from = at
    word = name
  }
  if (from < until) found.push({ word: wordOf(word, glaze), from, to: until, pattern: word })
  return found
}

function wordOf(word: string, glaze: Glaze): string {
  return word === 'wet' ? 'wet' : milestoneWord(word, glaze.caramelises)
}

/** Set and bubbling of a site with their range, where they fall into the picture. */
export function marks(glaze: Glaze, site: string, until: number): Mark[] {
  return ['set', 'bubbling'].flatMap((name) => {
    const band = glaze.milestones[site]?.[name]
    if (!band || band.likely_s === null || band.low_s === null || band.likely_s > until) return []
    return [{ word: name, low: band.low_s, likely: band.likely_s, high: band.high_s ?? until }]
  })
}

/** Gradient stops (offset 0 to 1, colour) of a site up to a moment; at most 80. */
export function stops(
  colours: string[],
  samples: number[],
  until: number,
): { offset: number; colour: string }[] {
  const last = samples.findIndex((t) => t > until)
  const count = last === -1 ? samples.length : last + 1
  const every = Math.max(1, Math.ceil(count / 80))
  const found = []
  for (let i = 0; i < count; i += every)
    found.push({ offset: Math.min(1, samples[i]! / until), colour: colours[i]! })
  return found
}

/** Points of a line "x,y x,y" from values 0 to 1 drawn in a box. */
export function line(
  values: number[],
  samples: number[],
  until: number,
  width: number,
  top: number,
  height: number,
): string {
  return samples
    .flatMap((t, i) =>
      t > until
        ? []
        : [`${((t / until) * width).toFixed(1)},${(top + (1 - values[i]!) * height).toFixed(1)}`],
    )
    .join(' ')
}

/** The chance of the wanted colour along the strip, smoothed: gradient stops whose opacity it is. */
export function bracket(glaze: Glaze, until: number): { offset: number; chance: number }[] {
  const last = glaze.sample_s.findIndex((t) => t > until)
  const count = last === -1 ? glaze.sample_s.length : last + 1
  const every = Math.max(1, Math.ceil(count / 60))
  const found = []
  for (let i = 0; i < count; i += every)
    found.push({ offset: Math.min(1, glaze.sample_s[i]! / until), chance: smooth(glaze.wanted, i) })
  return found
}

const KERNEL = [1, 2, 3, 2, 1]

function smooth(values: number[], at: number): number {
  const near = KERNEL.map((weight, k) => ({ weight, value: values[at + k - 2] }))
  const known = near.filter((n) => n.value !== undefined)
  const total = known.reduce((sum, n) => sum + n.weight, 0)
  return known.reduce((sum, n) => sum + n.weight * n.value!, 0) / total
}

/** What the clock alone is worth, in words. */
export function clockVerdict(glaze: Glaze): string {
  const best = Math.max(0, ...glaze.wanted)
  const right = `right ${often(best)}`
  return glaze.window.empty ? `no window by the clock: ${right} at best` : `by the clock: ${right}`
}

/** The word of a sign on the strip. */
export function signWord(sign: string, caramelises: boolean): string {
  if (sign === 'amber at the edges') return caramelises ? 'amber edges' : 'browned edges'
  return sign
}

/** Whole minutes for the axis, with 70 pixels for each and no more than about ten. */
export function ticks(until: number, width = 700): number[] {
  const most = Math.min(10, Math.max(2, width / 70))
  const step = [30, 60, 120, 300, 600, 900].find((s) => until / s <= most) ?? 1800
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, i) => i * step)
}
