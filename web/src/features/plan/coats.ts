import type { Chain, ChainStage, Glaze } from '@/api/client'
import { withoutLeft } from './layers'
import { find, freshId } from './stages'

type Heat = ChainStage & { kind: 'heat' }
type Act = NonNullable<Heat['acts']>[number]

const QUARTER_S = 15
const AT_ONCE_S = 15
const MIN_S = 60

/** A coat on a fire's strip: its number, its second under the heat, and whether it is on before. */
export interface Drop {
  number: number
  at_s: number
  before: boolean
}

const isCoat = (act: Act) => act.do === 'coat'

/** The coats of a fire as they stand on its strip; those that an earlier fire left are none. */
export function drops(fire: ChainStage | undefined, glaze: Glaze): Drop[] {
  if (fire?.kind !== 'heat') return []
  const inside = (fire.acts ?? []).filter(isCoat).length
  return glaze.coats.map((coat, i) => ({
    number: i + 1,
    at_s: coat.at_s,
    before: i < glaze.coats.length - inside,
  }))
}

/** Put on since the heat before: its place in the list, -1 where there is none. */
function dressedAt(list: ChainStage[], place: number): number {
  for (let at = place - 1; at >= 0; at--) {
    if (list[at]!.kind === 'heat') return -1
    if (list[at]!.kind === 'dress') return at
  }
  return -1
}

const byMinute = (a: Act, b: Act) => (a.at_min ?? Infinity) - (b.at_min ?? Infinity)

/** Every coat of a fire at the minute that it stands at: one that is moved leaves the others. */
function told(fire: Heat, all: Drop[]): Act[] {
  const inside = all.filter((drop) => !drop.before)
  let coat = 0
  return (fire.acts ?? []).map((act) =>
    isCoat(act) ? { ...act, at_min: minutes(inside[coat++]?.at_s ?? 0) } : act,
  )
}

const minutes = (seconds: number) =>
  Math.max(QUARTER_S, Math.round(seconds / QUARTER_S) * QUARTER_S) / MIN_S

/** Move a coat to a second under the heat. Off the start it is brushed on in the fire, and back to
 * the start it goes on before it. The plan is changed. */
export function moveCoat(next: Chain, id: string, all: Drop[], number: number, to_s: number) {
  const at = find(next, id)
  const fire = at?.list[at.place]
  const drop = all.find((one) => one.number === number)
  if (!at || fire?.kind !== 'heat' || !drop) return
  const acts = told(fire, all)
  const place = dressedAt(at.list, at.place)
  const coats = acts.filter(isCoat)
  const own = coats[number - 1 - all.filter((one) => one.before).length]
  const dressed = place < 0 ? undefined : at.list[place]
  if (drop.before) {
    if (to_s <= AT_ONCE_S || dressed?.kind !== 'dress') return
    acts.push({ do: 'coat', at_min: minutes(to_s), layer: dressed.layer } as Act)
    at.list.splice(place, 1)
  } else if (!own) return
  else if (to_s <= AT_ONCE_S && place < 0) {
    acts.splice(acts.indexOf(own), 1)
    const stage = { kind: 'dress', id: freshId(next, 'dress'), layer: own.layer, mm: fire.coat_mm }
    at.list.splice(at.place, 0, stage as ChainStage)
  } else own.at_min = minutes(to_s)
  fire.acts = acts.sort(byMinute)
}

/** Take a coat off. The plan is changed. */
export function takeCoat(next: Chain, id: string, all: Drop[], number: number) {
  const at = find(next, id)
  const fire = at?.list[at.place]
  const drop = all.find((one) => one.number === number)
  if (!at || fire?.kind !== 'heat' || !drop) return
  const before = JSON.parse(JSON.stringify(next)) as Chain
  const place = dressedAt(at.list, at.place)
  if (drop.before && place >= 0) at.list.splice(place, 1)
  if (!drop.before) {
    const coats = (fire.acts ?? []).filter(isCoat)
    const own = coats[number - 1 - all.filter((one) => one.before).length]
    fire.acts = (fire.acts ?? []).filter((act) => act !== own)
  }
  withoutLeft(before, next)
}

/** Brush one more on, some time after the last. The plan is changed. */
export function addCoat(next: Chain, id: string, all: Drop[], layer: string, last_s: number) {
  const at = find(next, id)
  const fire = at?.list[at.place]
  if (!at || fire?.kind !== 'heat') return
  const act = { do: 'coat', at_min: minutes(last_s), layer } as Act
  fire.acts = [...told(fire, all), act].sort(byMinute)
}

/** How thick each coat of a fire is [mm]. The plan is changed. */
export function thickCoats(next: Chain, id: string, mm: number) {
  const at = find(next, id)
  const fire = at?.list[at.place]
  if (!at || fire?.kind !== 'heat') return
  fire.coat_mm = mm
  const dressed = at.list[dressedAt(at.list, at.place)]
  if (dressed?.kind === 'dress') dressed.mm = mm
}
