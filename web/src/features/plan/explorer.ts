import type { Explorer } from '@/api/client'

/** Arithmetic of the explorer's map. */

export interface Run {
  row: number
  from: number
  to: number
  region: number
}

/** Stretches of one region in each row: far fewer to draw than cells. */
export function runs(grid: number[][]): Run[] {
  return grid.flatMap((cells, row) => {
    const found: Run[] = []
    cells.forEach((region, i) => {
      const last = found.at(-1)
      if (last && last.region === region) last.to = i + 1
      else found.push({ row, from: i, to: i + 1, region })
    })
    return found
  })
}

/** Where to write a region's word: the middle of its stretch in the middle row in which it is wide enough. */
export function labels(grid: number[][], least = 5): Run[] {
  const all = runs(grid).filter((r) => r.to - r.from >= least)
  return [...new Set(all.map((r) => r.region))].map((region) => {
    const own = all.filter((r) => r.region === region)
    return own[Math.floor(own.length / 2)]!
  })
}

/** The row nearest to a heat. */
export function nearest(heats: number[], heat: number): number {
  return heats.reduce(
    (best, h, i) => (Math.abs(h - heat) < Math.abs(heats[best]! - heat) ? i : best),
    0,
  )
}

/** "15 cm" or "200 °C". */
export function heatText(explorer: Pick<Explorer, 'axis'>, heat: number): string {
  return explorer.axis === 'rack_m' ? `${Math.round(heat * 100)} cm` : `${Math.round(heat)} °C`
}

/** A heat that can be set: whole centimetres, or five degrees. */
export function settable(explorer: Pick<Explorer, 'axis'>, heat: number): number {
  return explorer.axis === 'rack_m' ? Math.round(heat * 100) / 100 : Math.round(heat / 5) * 5
}
