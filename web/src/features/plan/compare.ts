import type { ChainForecast } from '@/api/client'
import { evenings } from '@/shared/format/share'
import { clock, duration, stopwatch } from '@/shared/format/time'

export interface Row {
  what: string
  /** What each of the two says. */
  says: [string, string]
  /** Which of them is better by it; none where that is a matter of taste. */
  better?: 0 | 1
}

const TENDER_LEAST = 0.05

/** The lower, or the higher, of two; none where they are as good as one. */
function better(a: number, b: number, least: number, low = true): 0 | 1 | undefined {
  if (Math.abs(a - b) < least) return undefined
  return a < b === low ? 0 : 1
}

/** When the last fire is left: its window, or its timer. */
function windowWords(forecast: ChainForecast): string {
  const fire = forecast.fires.at(-1)
  if (!fire) return 'no fire to watch'
  const { opens_s, closes_s, empty } = fire.glaze.window
  if (fire.by !== 'colour') return `by the clock, ${duration(fire.timer_s)}`
  if (empty || opens_s === null || closes_s === null) return 'by its look alone'
  return `${stopwatch(opens_s)} to ${stopwatch(closes_s)}, ${Math.round(closes_s - opens_s)} s wide`
}

const widthOf = (forecast: ChainForecast) => {
  const { opens_s, closes_s, empty } = forecast.fires.at(-1)?.glaze.window ?? {}
  return empty || opens_s == null || closes_s == null ? 0 : closes_s - opens_s
}

/** Whether the crust crackles before the last fire is left. */
function crispWords(forecast: ChainForecast): string {
  const fire = forecast.fires.at(-1)
  const crisp = fire?.glaze.milestones['face']?.crisp
  if (!fire || !crisp) return 'no crust'
  if (crisp.likely_s === null || crisp.likely_s > fire.timer_s) return 'soft when it comes out'
  return `crackles from ${stopwatch(crisp.likely_s)} on`
}

function tenderWords(forecast: ChainForecast): string {
  const share = forecast.right.bite
  return share === null ? 'not wished' : evenings(share)
}

/** "about 1.4 kWh, 0.43"; fuel is told by its name. */
export function energyWords(kwh: Record<string, number>, price: number | null): string {
  const told = Object.entries(kwh).map(([carrier, much]) => {
    const amount = `${much.toFixed(1)} kWh of ${carrier}`
    return carrier === 'electricity' && price ? `${amount}, ${(much * price).toFixed(2)}` : amount
  })
  return told.length ? `about ${told.join(' and ')}` : 'none'
}

const kwhOf = (forecast: ChainForecast) =>
  Object.values(forecast.energy_kwh).reduce((sum, one) => sum + one, 0)
const stopsOf = (forecast: ChainForecast) =>
  forecast.watch_outs.filter((one) => one.level === 'stop').length

/** Two cooks side by side, row by row. */
export function rows(a: ChainForecast, b: ChainForecast, price: number | null): Row[] {
  const both = (words: (one: ChainForecast) => string): [string, string] => [words(a), words(b)]
  const time = (one: ChainForecast) => one.total.likely_s
  return [
    {
      what: 'On the table',
      says: both(
        (one) =>
          `${clock(one.serve_at)} (${clock(one.serve_low_at)} to ${clock(one.serve_high_at)})`,
      ),
    },
    {
      what: 'Honest time',
      says: both((one) => duration(time(one))),
      better: better(time(a), time(b), 60),
    },
    { what: 'Your timers alone', says: both((one) => duration(one.headline_s)) },
    {
      what: 'Hands busy',
      says: both((one) => duration(one.hands_s)),
      better: better(a.hands_s, b.hands_s, 60),
    },
    {
      what: 'Comes out right',
      says: both((one) => evenings(one.right.all_of_it)),
      better: better(a.right.all_of_it, b.right.all_of_it, TENDER_LEAST, false),
    },
    { what: 'As tender as wished', says: both(tenderWords) },
    {
      what: 'Out of the last fire',
      says: both(windowWords),
      better: better(widthOf(a), widthOf(b), 10, false),
    },
    { what: 'Crust', says: both(crispWords) },
    {
      what: 'Energy',
      says: both((one) => energyWords(one.energy_kwh, price)),
      better: better(kwhOf(a), kwhOf(b), 0.1),
    },
    {
      what: 'To be mended first',
      says: both((one) => (stopsOf(one) ? `${stopsOf(one)} to stop for` : 'nothing')),
      better: better(stopsOf(a), stopsOf(b), 1),
    },
  ]
}
