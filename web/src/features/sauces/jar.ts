import type { Analysis, OwnIngredient, SauceDraft } from '@/api/client'

/** Arithmetic of the jar: which layers it has and where they lie. No chemistry; the server sends fractions. */

export interface Layer {
  part: string
  word: string
  share: number
  from: number
  to: number
}

export const PART_WORDS: Record<string, string> = {
  fat: 'fat',
  water: 'water',
  acid: 'acid',
  salt: 'salt',
  protein: 'protein',
  other: 'fibre and starch',
  glucose: 'glucose',
  fructose: 'fructose',
  sucrose: 'table sugar',
}
// From the top: what floats, what flows, what sinks.
const ORDER = ['fat', 'water', 'acid', 'salt', 'protein', 'other', 'glucose', 'fructose', 'sucrose']

/** Layers from the top (0) to the bottom (1); parts under half a per cent are left out of the drawing. */
export function layers(parts: Record<string, number>): Layer[] {
  const shown = ORDER.filter((part) => (parts[part] ?? 0) >= 0.005)
  const whole = shown.reduce((sum, part) => sum + parts[part]!, 0)
  let from = 0
  return shown.map((part) => {
    const share = parts[part]!
    const layer = { part, word: PART_WORDS[part] ?? part, share, from, to: from + share / whole }
    from = layer.to
    return layer
  })
}

/** Where to write labels so that none lies on another: each at its middle, pushed down by at least `gap`, then back up. */
export function labelPlaces(middles: number[], gap: number, height: number): number[] {
  const places = [...middles]
  for (let i = 1; i < places.length; i++) places[i] = Math.max(places[i]!, places[i - 1]! + gap)
  let limit = height
  for (let i = places.length - 1; i >= 0; i--) {
    places[i] = Math.min(places[i]!, limit)
    limit = places[i]! - gap
  }
  return places
}

/** "8 %", "0.6 %". */
export function percent(share: number): string {
  return `${share >= 0.1 ? Math.round(share * 100) : (share * 100).toFixed(1).replace(/\.0$/, '')} %`
}

/** "260 g, about 215 ml"; with the range where amounts leave one. */
export function yieldWords(
  a: Pick<Analysis, 'yield_g' | 'yield_ml' | 'yield_low_g' | 'yield_high_g' | 'simmered'>,
): string {
  const wide = !a.simmered && a.yield_high_g - a.yield_low_g > 0.03 * a.yield_g
  const range = wide ? ` (${Math.round(a.yield_low_g)} to ${Math.round(a.yield_high_g)})` : ''
  return `${Math.round(a.yield_g)} g${range}, about ${Math.round(a.yield_ml)} ml`
}

const KINDS = ['rub', 'marinade', 'braise', 'glaze', 'table']

/** A sauce from a file, whatever else the file holds; throws where there are no lines. The server judges the rest. */
export function fromFile(given: Partial<SauceDraft>, name: string): Partial<SauceDraft> {
  if (!Array.isArray(given.lines) || !given.lines.every((line) => typeof line === 'string'))
    throw new Error('no lines')
  if (given.lines.length > 300) throw new Error('too many lines')
  return {
    name: typeof given.name === 'string' ? given.name.slice(0, 80) : name,
    kind: KINDS.includes(given.kind as string) ? given.kind! : 'glaze',
    lines: given.lines,
    own: Array.isArray(given.own) ? given.own : [],
    moves: Array.isArray(given.moves) ? given.moves : [],
    for_kg: typeof given.for_kg === 'number' ? given.for_kg : null,
    simmer: given.simmer && typeof given.simmer === 'object' ? given.simmer : null,
  }
}

export const ALLERGENS = [
  'milk',
  'egg',
  'wheat',
  'soy',
  'mustard',
  'fish',
  'shellfish',
  'sesame',
  'nuts',
  'peanuts',
  'celery',
  'sulphites',
]

/** An ingredient of one's own from its parts in per cent, and how much is left for fibre and starch; none where it cannot be. */
export function ownByHand(
  name: string,
  parts: Record<string, number | null>,
  density: number,
  allergens: string[],
): { item?: OwnIngredient; rest: number } {
  const sum = Object.values(parts).reduce<number>((total, part) => total + (part ?? 0), 0)
  const rest = Number((100 - sum).toFixed(1))
  const key = name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
  if (
    !key ||
    rest < 0 ||
    Object.values(parts).some((part) => (part ?? 0) < 0) ||
    density < 0.05 ||
    density > 2
  )
    return { rest }
  const fractions = Object.fromEntries(
    Object.entries({ ...parts, other: rest }).map(([part, share]) => [
      part,
      Number(((share ?? 0) / 100).toFixed(4)),
    ]),
  )
  return {
    item: { key, name: name.trim(), fractions, density_kg_l: density, group: 'sauce', allergens },
    rest,
  }
}
