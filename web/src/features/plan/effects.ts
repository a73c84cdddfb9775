import type { Assumed, Effect } from '@/api/client'

const LEAST_MIN = 0.75

function moved(minutes: number): string {
  const whole = Math.round(Math.abs(minutes))
  if (whole === 0) return 'no difference'
  return `${whole} min ${minutes > 0 ? 'later' : 'sooner'}`
}

/** The most that an assumption moves supper, in minutes. */
export const weight = (effect?: Effect): number =>
  effect ? Math.max(Math.abs(effect.plate_low_min), Math.abs(effect.plate_high_min)) : 0

/** Whether an assumption is worth a minute. */
export const matters = (effect?: Effect): boolean => weight(effect) >= LEAST_MIN

/** "a weak pot: 10 min later; a strong one: 5 min sooner"; nothing to say where it hardly matters. */
export function effectWords(effect?: Effect): string {
  if (!effect) return ''
  if (!matters(effect)) return 'hardly moves supper'
  const { plate_low_min: low, plate_high_min: high, unit } = effect
  const from = effect.low_says || `${effect.low} ${unit}`
  const to = effect.high_says || `${effect.high} ${unit}`
  return `${from}: ${moved(low)}; ${to}: ${moved(high)}`
}

/** One figure that is known, without what it is of: "8 cm", "hot in 6 min", "1,000 W". */
function figureWords(row: Assumed, value: number): string {
  if (row.name.endsWith('_preheat_min')) return `hot in ${value} min`
  if (row.unit === 'm' && value < 1) return `${Math.round(value * 100)} cm`
  return `${value.toLocaleString('en-GB')} ${row.unit}`
}

/** Figures that are known of a kitchen, grouped by what they are of: "pot 1,000 W, 6 L". */
export function knownWords(figures: Record<string, number>, rows: Assumed[]): string {
  const found = new Map<string, string[]>()
  for (const row of rows) {
    const value = figures[row.name]
    if (value === undefined || !row.known) continue
    found.set(row.known, [...(found.get(row.known) ?? []), figureWords(row, value)])
  }
  return [...found].map(([what, values]) => `${what} ${values.join(', ')}`).join(', ')
}
