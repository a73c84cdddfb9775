import type { ChainForecast } from '@/api/client'
import { evenings } from '@/shared/format/share'
import { duration } from '@/shared/format/time'

/** A repair is looked for below this share of evenings. */
export const GOOD_ENOUGH = 0.85
/** A change of time that nobody notices. */
const SAME_S = 90

/** What goes wrong most often, in words; empty where hardly anything does. */
export function weakest(forecast: ChainForecast): string {
  const { bite, fires, all_of_it } = forecast.right
  if (all_of_it >= GOOD_ENOUGH) return ''
  const [stage, share] = Object.entries(fires).sort((a, b) => a[1] - b[1])[0] ?? ['', 1]
  if (bite !== null && bite <= share) return `Least sure: tender enough ${evenings(bite)}.`
  const clause = forecast.sentence.find((one) => one.stage === stage)?.text ?? ''
  return `Least sure: ${clause}, right ${evenings(share)}.`
}

/** What a repair costs: "same time", "21 min longer". */
export function cost(longer: number): string {
  if (Math.abs(longer) < SAME_S) return 'same time'
  return `${duration(Math.abs(longer))} ${longer > 0 ? 'longer' : 'shorter'}`
}
