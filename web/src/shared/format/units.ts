import type { Degrees, KitchenUnits } from '@/shared/composables/useUnits'

const POUND_KG = 0.45359237
const INCH_MM = 25.4

/** "1.6 kg" or "3.5 lb". */
export function mass(kg: number, units: KitchenUnits): string {
  return units === 'metric' ? `${trim(kg, 2)} kg` : `${trim(kg / POUND_KG, 1)} lb`
}

const OUNCES = 16
/** "470 g" or "7.5 oz"; from a kilogram or a pound on as any other mass. */
export function helping(kg: number, units: KitchenUnits): string {
  if (units === 'metric') return kg < 1 ? `${trim(kg * 1000, 0)} g` : mass(kg, units)
  return kg < POUND_KG ? `${trim((OUNCES * kg) / POUND_KG, 1)} oz` : mass(kg, units)
}

/** "45 mm" or "1.8 in". */
export function length(mm: number, units: KitchenUnits): string {
  return units === 'metric' ? `${trim(mm, 0)} mm` : `${trim(mm / INCH_MM, 1)} in`
}

/** "117 °C" or "243 °F". */
export function temperature(celsius: number, degrees: Degrees): string {
  return degrees === 'C' ? `${Math.round(celsius)} °C` : `${Math.round(celsius * 1.8 + 32)} °F`
}

/** What is typed in the cook's units, as kilograms or millimetres; not a number stays what it was. */
export function typed(text: string, factor: number): number | string {
  const cleaned = text.trim().replace(',', '.')
  const number = Number(cleaned)
  return cleaned === '' || Number.isNaN(number) ? text : Math.round(number * factor * 1e6) / 1e6
}

export interface Shown {
  unit: string
  show: (kept: number) => number
  keep: (shown: number) => number
}

const US: Record<string, [unit: string, factor: number]> = {
  kg: ['lb', POUND_KG],
  mm: ['in', INCH_MM],
  g: ['oz', (POUND_KG * 1000) / 16],
  L: ['qt', 0.946352946],
  m: ['ft', 0.3048],
}

/** How a figure that is kept in `unit` is shown to this cook, and back. */
export function shownIn(unit: string, units: KitchenUnits, degrees: Degrees): Shown {
  if (unit === '°C' && degrees === 'F')
    return { unit: '°F', show: (c) => c * 1.8 + 32, keep: (f) => (f - 32) / 1.8 }
  const found = units === 'us' ? US[unit] : undefined
  if (!found) return { unit, show: (v) => v, keep: (v) => v }
  return { unit: found[0], show: (v) => v / found[1], keep: (v) => v * found[1] }
}

/** A step that suits the unit shown: 5 °C is 10 °F, 0.1 kg a quarter pound, 10 mm half an inch. */
export function niceStep(step: number): number {
  const power = 10 ** Math.floor(Math.log10(step))
  const nice = [1, 2.5, 5, 10].map((n) => n * power)
  return nice.reduce((best, n) =>
    Math.abs(Math.log(n / step)) < Math.abs(Math.log(best / step)) ? n : best,
  )
}

/** A number with at most so many decimals and no zeros at its end. */
export function trim(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)))
}
