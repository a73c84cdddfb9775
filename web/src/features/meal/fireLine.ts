import type { Schedule } from '@/api/client'

/** Where everything of a meal's drawing lies. Minutes run along; appliances are channels below each
 * other; a dish is a ribbon through them to the plate. */

export const WIDTH = { left: 138, right: 96, least: 860 }
const SLOT = 27
const PAD = 9
const TOP = 34
const IDLE_MIN = 12 // of a span without hands that is drawn at its length
const SHRUNK = 0.08 // of what is beyond it
const BREAK_MIN = 45 // from here on a shrunk span is told
export const BOARD = '' // no appliance is called that

export type Kind = 'cold' | 'warm' | 'slow' | 'fire'
export interface Piece {
  from: number
  to: number
  channel: string
  kind: Kind
  temp: number | null
  y: number
  label: string
}
export interface Ribbon {
  id: string
  name: string
  pieces: Piece[]
  end: number
}
export interface Channel {
  name: string
  top: number
  height: number
}
export interface Visit {
  key: string
  from: number
  to: number
  y: number
  label: string
  line: string
  fire: boolean
}
export interface Broken {
  from: number
  to: number
  minutes: number
}
export interface FireLine {
  ribbons: Ribbon[]
  channels: Channel[]
  threads: Visit[][]
  breaks: Broken[]
  from: number
  to: number
  height: number
}

export const minute = (moment: string) => new Date(moment).getTime() / 60_000
type Task = Schedule['tasks'][number]

/** Spans in which hands are wanted, in order and without overlap [min]. */
export function busySpans(tasks: Task[], end: number): [number, number][] {
  const spans = tasks
    .filter((t) => t.pair !== null)
    .map((t): [number, number] => [minute(t.hands_at), minute(t.end_at)])
    .sort((a, b) => a[0] - b[0])
  const found: [number, number][] = []
  for (const [from, to] of [...spans, [end, end] as [number, number]]) {
    const last = found.at(-1)
    if (last && from <= last[1]) last[1] = Math.max(last[1], to)
    else found.push([from, to])
  }
  return found
}

/** Places of moments along the drawing: where no hands are wanted for long, it runs faster. */
export class Scale {
  private readonly marks: [number, number][] = []
  readonly breaks: Broken[] = []
  private readonly unit: number

  constructor(spans: [number, number][], from: number, to: number, left: number, right: number) {
    let drawn = 0
    let at = from
    this.marks.push([from, 0])
    const idle = (until: number) => {
      const long = until - at
      if (long <= 0) return
      const short = Math.min(long, IDLE_MIN) + Math.max(0, long - IDLE_MIN) * SHRUNK
      if (long > BREAK_MIN) this.breaks.push({ from: at, to: until, minutes: long })
      drawn += short
      at = until
      this.marks.push([at, drawn])
    }
    for (const [begin, end] of spans) {
      idle(Math.min(begin, to))
      if (end <= at) continue
      drawn += Math.min(end, to) - at
      at = Math.min(end, to)
      this.marks.push([at, drawn])
    }
    idle(to)
    this.unit = (right - left) / Math.max(1, drawn)
    this.marks = this.marks.map(([t, d]) => [t, left + d * this.unit])
  }

  /** Pixels of a minute where nothing is shrunk. */
  get perMinute() {
    return this.unit
  }

  x(at: number): number {
    const { marks } = this
    const place = marks.findIndex(([t]) => t >= at)
    if (place === 0) return marks[0]![1]
    if (place < 0) return marks.at(-1)![1]
    const [before, after] = [marks[place - 1]!, marks[place]!]
    const share = (at - before[0]) / Math.max(1e-9, after[0] - before[0])
    return before[1] + share * (after[1] - before[1])
  }
}

/** What a dish goes through, in order: out on the board, or in an appliance. */
export function piecesOf(plan: Schedule, id: string): Omit<Piece, 'y'>[] {
  const tasks = plan.tasks.filter((t) => t.line === id)
  if (!tasks.length) return []
  const uses = plan.uses
    .filter((u) => u.line === id)
    .map((u) => ({ ...u, from: minute(u.start_at), to: minute(u.end_at) }))
    .sort((a, b) => a.from - b.from)
  const end = Math.max(...tasks.map((t) => minute(t.end_at)))
  const firsts = tasks.filter((t) => !isAside(t.key)).map((t) => minute(t.start_at))
  let at = Math.min(...(firsts.length ? firsts : tasks.map((t) => minute(t.start_at))))
  const found: Omit<Piece, 'y'>[] = []
  let warm = false
  const board = (to: number) => {
    if (to <= at) return
    const kind = warm ? 'warm' : 'cold'
    found.push({ from: at, to, channel: BOARD, kind, temp: null, label: '' })
    at = to
  }
  for (const use of uses) {
    board(use.from)
    for (const part of inside(use, tasks)) {
      if (part.to <= at) continue
      found.push({ ...part, from: Math.max(at, part.from), channel: use.body, temp: use.temp_c })
      at = part.to
    }
    warm = true
  }
  board(end)
  return found
}

/** Work beside the food, which is no part of its way. */
const isAside = (key: string) => /\.(made|beside)$/.test(key)

/** A use, cut where fire begins and ends. */
function inside(use: { from: number; to: number }, tasks: Task[]) {
  const fires = tasks
    .filter((t) => t.who === 'fire')
    .map((t) => ({ from: minute(t.start_at), to: minute(t.end_at), label: t.label }))
    .filter((t) => t.from < use.to && t.to > use.from)
  const parts: { from: number; to: number; kind: Kind; label: string }[] = []
  let at = use.from
  const holds = tasks.filter((t) => t.who === 'machine')
  const name = (from: number, to: number) => {
    const long = holds.filter((t) => minute(t.start_at) < to && minute(t.end_at) > from)
    long.sort(
      (a, b) => minute(b.end_at) - minute(b.start_at) - minute(a.end_at) + minute(a.start_at),
    )
    return long[0]?.label ?? ''
  }
  const slow = (to: number) => {
    if (to > at) parts.push({ from: at, to, kind: 'slow', label: name(at, to) })
    at = Math.max(at, to)
  }
  for (const fire of fires) {
    if (parts.at(-1)?.kind === 'fire') parts.at(-1)!.to = fire.to
    else {
      slow(fire.from)
      parts.push({ ...fire, kind: 'fire' })
    }
    at = fire.to
  }
  slow(use.to)
  return parts
}

/** Lay everything out. */
export function fireLine(plan: Schedule): FireLine {
  const names = plan.lines.map((line) => ({ ...line, pieces: piecesOf(plan, line.id) }))
  const lines = names.filter((line) => line.pieces.length)
  const channels: Channel[] = []
  const placed = new Map<string, number[]>()
  let top = TOP
  for (const name of channelsOf(lines)) {
    const here = lines.flatMap((line) =>
      line.pieces
        .filter((p) => p.channel === name)
        .map((p) => ({ key: `${line.id}@${p.from}`, line: line.id, from: p.from, to: p.to })),
    )
    const slots = slotsOf(here)
    const height = Math.max(1, slots.count) * SLOT + 2 * PAD
    for (const [key, slot] of slots.of) placed.set(key, [top + PAD + (slot + 0.5) * SLOT])
    channels.push({ name, top, height })
    top += height
  }
  const ribbons = lines.map((line) => ({
    id: line.id,
    name: line.name,
    end: line.pieces.at(-1)!.to,
    pieces: line.pieces.map((p) => ({ ...p, y: placed.get(`${line.id}@${p.from}`)![0]! })),
  }))
  const from = Math.min(...plan.tasks.map((t) => minute(t.start_at)))
  const to = minute(plan.ready_at)
  const spans = busySpans(plan.tasks, to)
  const pairs = Math.max(0, ...plan.tasks.map((t) => (t.pair ?? -1) + 1))
  const threads = Array.from({ length: pairs }, (_, pair) => visits(plan, ribbons, pair))
  const breaks = new Scale(spans, from, to, 0, 1).breaks
  return { ribbons, channels, threads, breaks, from, to, height: top + 40 }
}

/** Appliances from top to bottom: what is slow, the board, what is fierce. So food comes down to its
 * fire, and goes from there to the plate. */
function channelsOf(lines: { pieces: Omit<Piece, 'y'>[] }[]): string[] {
  const pieces = lines.flatMap((line) => line.pieces).sort((a, b) => a.from - b.from)
  const fierce = new Set(pieces.filter((p) => p.kind === 'fire').map((p) => p.channel))
  const names = [...new Set(pieces.map((p) => p.channel))].filter((name) => name !== BOARD)
  const slow = names.filter((name) => !fierce.has(name))
  return [...slow, BOARD, ...names.filter((name) => fierce.has(name))]
}

/** Places below each other for what is somewhere at the same time; a line keeps its own. */
export function slotsOf(spans: { key: string; line: string; from: number; to: number }[]) {
  const ends: number[] = []
  const of = new Map<string, number>()
  const own = new Map<string, number>()
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const mine = own.get(span.line)
    const free = (slot: number) => (ends[slot] ?? -Infinity) <= span.from + 1e-6
    let slot = mine !== undefined && free(mine) ? mine : ends.findIndex((_, n) => free(n))
    if (slot < 0) slot = ends.length
    ends[slot] = span.to
    own.set(span.line, slot)
    of.set(span.key, slot)
  }
  return { of, count: ends.length }
}

/** What one pair of hands visits. */
function visits(plan: Schedule, ribbons: Ribbon[], pair: number): Visit[] {
  return plan.tasks
    .filter((t) => t.pair === pair)
    .map((t) => {
      const from = minute(t.hands_at)
      return {
        key: t.key,
        from,
        to: minute(t.end_at),
        y: heightAt(ribbons, t.line, from),
        label: t.label,
        line: t.line,
        fire: t.who === 'fire',
      }
    })
    .sort((a, b) => a.from - b.from)
}

/** How high a dish's ribbon lies at a moment; where it has not begun, or is over, at its nearest. */
export function heightAt(ribbons: Ribbon[], line: string, at: number): number {
  const pieces = ribbons.find((r) => r.id === line)?.pieces ?? []
  const here =
    pieces.find((p) => at >= p.from - 1e-6 && at < p.to) ?? pieces.find((p) => p.from > at)
  return (here ?? pieces.at(-1))?.y ?? 0
}

/** Round moments that fit along the drawing. */
export function ticks(scale: Scale, from: number, to: number, apart = 64): number[] {
  const found: number[] = []
  for (const step of [5, 10, 15, 30, 60, 120, 240]) {
    const all: number[] = []
    for (let at = Math.ceil(from / step) * step; at < to; at += step) all.push(at)
    if (all.length > 60) continue
    for (const at of all)
      if (found.every((one) => Math.abs(scale.x(one) - scale.x(at)) >= apart)) found.push(at)
  }
  return found.sort((a, b) => a - b)
}

/** The colour of a piece: by how hot what it lies in is. */
export function fill(piece: Pick<Piece, 'kind' | 'temp'>): string {
  if (piece.kind === 'cold') return 'var(--kettle-water)'
  if (piece.kind === 'warm') return 'var(--kettle-out)'
  const hot = piece.temp ?? (piece.kind === 'fire' ? 230 : 105)
  const share = Math.round(100 * Math.min(1, Math.max(0, (hot - 60) / 170)))
  return `color-mix(in oklab, var(--kettle-glow) ${share}%, var(--kettle-warming))`
}
