import type { Degrees, KitchenUnits } from '@/shared/composables/useUnits'

const POUND_KG = 0.45359237
const INCH_MM = 25.4

/** "1.6 kg" or "3.5 lb". */
export function mass(kg: number, units: KitchenUnits): string {
  return units === 'metric' ? `${trim(kg, 2)} kg` : `${trim(kg / POUND_KG, 1)} lb`
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

export const massFactor = (units: KitchenUnits): number => (units === 'metric' ? 1 : POUND_KG)
export const lengthFactor = (units: KitchenUnits): number => (units === 'metric' ? 1 : INCH_MM)

/** A number with at most so many decimals and no zeros at its end. */
export function trim(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)))
}
