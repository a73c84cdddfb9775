import type { ChainForecast } from '@/api/client'
import { clock } from '@/shared/format/time'
import type { Point, Strip, Trace } from '@/shared/ui/TempLine.vue'

/** Links that a slow heat's trace runs through, by the end of their key. */
const HEATED = /\.(come_up|hold(-\d+)?|natural|quick)$/

const THIN_MM = 0.05 // a thinner crust is no line

/** A serial link and where it lies, as shares of the whole. */
interface Place {
  key: string
  stage: string
  label: string
  startsAt: string
  from: number
  to: number
}

/** The serial links one after the other, as long as their likely time. */
function places(forecast: ChainForecast): Place[] {
  const serial = forecast.links.filter((one) => one.serial)
  const total = serial.reduce((sum, one) => sum + one.band.likely_s, 0) || 1
  let at = 0
  return serial.map((one) => {
    const from = at
    at += one.band.likely_s / total
    return {
      key: one.key,
      stage: one.stage,
      label: one.label,
      startsAt: one.starts_at,
      from,
      to: at,
    }
  })
}

/** How warm the food and what is around it are along the whole cook. */
export function course(forecast: ChainForecast): Trace[] {
  const line = places(forecast)
  const middle: Point[] = []
  const whole: Point[] = []
  const around: Trace[] = []
  const told = new Map(forecast.course.map((one) => [one.link, one]))
  const put = (x: number, centre: number, mean: number) => {
    middle.push({ x, c: centre })
    whole.push({ x, c: mean })
  }
  const raw = told.get('')
  if (raw) put(0, raw.centre_c, raw.mean_c)
  const drawn = new Set<string>()
  for (const place of line) {
    const slow = forecast.slow_heats.find((one) => one.stage === place.stage)
    if (slow && HEATED.test(place.key) && !drawn.has(place.stage)) {
      drawn.add(place.stage)
      const own = line.filter((one) => one.stage === place.stage && HEATED.test(one.key))
      const { time_s = [], vessel_c = [], centre_c = [], mean_c = [] } = slow.traces
      const length = time_s.at(-1) || 1
      const x = (t: number) => place.from + (t / length) * (own.at(-1)!.to - place.from)
      time_s.forEach((t, i) => put(x(t), centre_c[i]!, mean_c[i]!))
      const points = time_s.map((t, i) => ({ x: x(t), c: vessel_c[i]! }))
      around.push({ name: `in the ${slow.name}`, kind: 'around', points })
    }
    const here = told.get(place.key)
    if (here) put(place.to, here.centre_c, here.mean_c)
  }
  return [
    { name: 'its middle', kind: 'middle', points: middle },
    { name: 'all of it', kind: 'whole', points: whole },
    ...around,
  ]
}

/** How tender the food is along the cook, as a share of the wish; nothing where none was wished. */
export function tender(forecast: ChainForecast): Point[] {
  const target = forecast.tenderness?.target
  if (!target) return []
  const told = new Map(forecast.course.map((one) => [one.link, one.cook_min]))
  let gained = told.get('') ?? 0
  const points: Point[] = [{ x: 0, c: gained / target }]
  const drawn = new Set<string>()
  const line = places(forecast)
  for (const place of line) {
    const slow = forecast.slow_heats.find((one) => one.stage === place.stage)
    if (slow && HEATED.test(place.key) && !drawn.has(place.stage)) {
      drawn.add(place.stage)
      const own = line.filter((one) => one.stage === place.stage && HEATED.test(one.key))
      const { time_s = [], cook_min = [] } = slow.traces
      const long = own.at(-1)!.to - place.from
      const base = gained
      cook_min.forEach((more, i) => {
        const x = place.from + (time_s[i]! / (time_s.at(-1) || 1)) * long
        points.push({ x, c: (base + more) / target })
      })
    }
    const here = told.get(place.key)
    if (here !== undefined) {
      gained = here
      points.push({ x: place.to, c: here / target })
    }
  }
  return points
}

/** How thick the crust of the food is along the cook [mm]; nothing where none is worth a line. */
export function crust(forecast: ChainForecast): Point[] {
  const told = new Map(forecast.course.map((one) => [one.link, one.crust_mm]))
  const slow = new Set(forecast.slow_heats.map((one) => one.stage))
  const fires = new Map(strips(forecast).map((one) => [one.stage, one]))
  const points: Point[] = [{ x: 0, c: told.get('') ?? 0 }]
  const put = (x: number, c: number) => points.push({ x, c })
  const level = () => points.at(-1)!.c
  for (const place of places(forecast)) {
    const fire = fires.get(place.stage)
    if (fire) {
      fires.delete(place.stage)
      put(fire.from, level())
      const { crust_mm = [] } = forecast.fires.find((one) => one.stage === place.stage)!.glaze
      const grown = crust_mm.slice(0, fire.colours.length)
      const long = fire.to - fire.from
      grown.forEach((c, i) => put(fire.from + (long * (i + 1)) / grown.length, c))
    }
    const here = told.get(place.key)
    // A wet heat soaks a crust off; what comes after a fire leaves it as it is.
    if (here !== undefined && slow.has(place.stage)) put(place.to, here)
  }
  put(1, level())
  return Math.max(...points.map((one) => one.c)) >= THIN_MM ? points : []
}

/** The colours of each fire, where it lies along the cook. */
export function strips(forecast: ChainForecast): (Strip & { stage: string })[] {
  const line = places(forecast)
  return forecast.fires.flatMap((fire) => {
    const own = line.filter(
      (one) =>
        one.stage === fire.stage && forecast.links.find((l) => l.key === one.key)?.who === 'fire',
    )
    if (!own.length) return []
    const { sample_s, face } = fire.glaze
    const long = own.reduce((sum, one) => sum + one.to - one.from, 0)
    const total = forecast.links.reduce((sum, one) => sum + (one.serial ? one.band.likely_s : 0), 0)
    const last = sample_s.filter((t) => t <= long * total + 0.5).length
    const colours = face.slice(0, Math.max(1, last))
    return [{ stage: fire.stage, from: own[0]!.from, to: own.at(-1)!.to, colours }]
  })
}

/** What is going on at a place along the cook: "19:14, under pressure". */
export function momentWords(forecast: ChainForecast): (x: number) => string {
  const line = places(forecast)
  return (x) => {
    const place = line.find((one) => one.to >= x) ?? line.at(-1)
    if (!place) return ''
    const share = place.to > place.from ? (x - place.from) / (place.to - place.from) : 0
    const link = forecast.links.find((one) => one.key === place.key)!
    const at = new Date(Date.parse(place.startsAt) + 1000 * share * link.band.likely_s)
    return `${clock(at)} ${place.label}`
  }
}
