import type { Appliance, Fit } from '@/api/client'

/** Arithmetic of the kitchen's drawings: insides on one shelf at one scale, pieces from above. */

export interface Drawn {
  id: number
  name: string
  x: number
  width: number
  height: number
  round: boolean
  racks: number[]
  sized: boolean
}

const GAP = 34
const LEAST = 96

/** Insides side by side on a shelf, all at the same scale (px per mm) so that a basket looks small beside an oven. */
export function shelf(
  appliances: Appliance[],
  scale: number,
): { drawn: Drawn[]; width: number; height: number } {
  let x = 0
  let tallest = 60
  const drawn = appliances.map((a) => {
    const sized = a.width_mm > 0 && a.height_mm > 0
    const width = Math.max(sized ? a.width_mm * scale : 0, 34)
    const height = Math.max(sized ? a.height_mm * scale : 0, 26)
    const slot = Math.max(width, LEAST)
    const one: Drawn = {
      id: a.id,
      name: a.given.name,
      x: x + (slot - width) / 2,
      width,
      height,
      round: a.shape === 'round',
      sized,
      // Racks are told by their distance from the element, which is at the top.
      racks: sized ? a.racks_mm.filter((r) => r < a.height_mm).map((r) => r * scale) : [],
    }
    x += slot + GAP
    tallest = Math.max(tallest, height)
    return one
  })
  return { drawn, width: Math.max(1, x - GAP), height: tallest }
}

/** "1.34 times, 1.08 to 1.66" as places on a bar from 0.5 to 2 (logarithmic), in per cent of its length. */
export function factorPlace(factor: number): number {
  const place = (Math.log(factor) - Math.log(0.5)) / (Math.log(2) - Math.log(0.5))
  return Math.min(100, Math.max(0, place * 100))
}

/** Low and high ends (P10, P90) of a factor. */
export function factorRange(factor: number, logSd: number): [number, number] {
  const spread = Math.exp(1.2816 * logSd)
  return [factor / spread, factor * spread]
}

/** Outline and pieces of a fit in a square of `size` pixels. */
export function fromAbove(
  fit: Fit,
  inside: { shape: string; width_mm: number; depth_mm: number },
  size: number,
) {
  const depth = inside.shape === 'round' ? inside.width_mm : inside.depth_mm
  const scale = size / Math.max(inside.width_mm, depth)
  const middle = { x: (inside.width_mm * scale) / 2, y: (depth * scale) / 2 }
  return {
    width: inside.width_mm * scale,
    height: depth * scale,
    pieces: fit.places.map((p) => ({
      x: middle.x + (p.x_m * 1e3 - (p.width_m * 1e3) / 2) * scale,
      y: middle.y + (p.y_m * 1e3 - (p.depth_m * 1e3) / 2) * scale,
      width: p.width_m * 1e3 * scale,
      height: p.depth_m * 1e3 * scale,
    })),
  }
}

/** Levels of a vessel from the side, as shares of its height: trivet, layers of food, liquid, line. */
export function fromTheSide(fit: Fit, height: number, trivet: number, pieces: number) {
  const layers = Math.max(
    1,
    Math.min(fit.layers || 1, Math.ceil(pieces / Math.max(1, fit.per_layer))),
  )
  return {
    trivet: trivet / height,
    food: Array.from({ length: layers }, (_, i) => ({
      from: (trivet + i * fit.height_mm) / height,
      to: (trivet + (i + 1) * fit.height_mm) / height,
    })),
    fill: fit.fill?.share ?? null,
    line: fit.fill?.line ?? null,
  }
}
