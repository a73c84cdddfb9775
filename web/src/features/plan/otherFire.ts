import type { Chain, Sauce } from '@/api/client'
import { layerOf } from './layers'
import { find, freshId } from './stages'

/** The same plan with another sauce on this fire, or the fire in another appliance:
 * "sauce:plum-tea" or "heat:air_fryer". */
export function otherFire(chain: Chain, id: string, key: string): Chain {
  const next = JSON.parse(JSON.stringify(chain)) as Chain
  const at = find(next, id)
  const fire = at?.list[at.place]
  if (!at || fire?.kind !== 'heat') return next
  const [what, value] = key.split(':') as [string, string]
  if (what === 'heat') Object.assign(fire, { heat: value, dial: null })
  else {
    const used = sauceUsed(at.list, at.place)
    const layer = next.layers?.find((one) => one.id === used)
    if (layer) Object.assign(layer, { sauce: value as Sauce, name: '' })
  }
  return next
}

/** The layer of the coats of a fire: those in it, else what was put on before it; empty for none. */
export function sauceUsed(list: Chain['stages'], place: number): string {
  const fire = list[place]
  if (fire?.kind !== 'heat') return ''
  const inside = fire.acts?.find((act) => act.do === 'coat')?.layer
  if (inside) return inside
  for (const stage of list.slice(0, place).reverse()) {
    if (stage.kind === 'heat') return ''
    if (stage.kind === 'dress') return stage.layer
  }
  return ''
}

/** Put a sauce on a plan that is held as a copy: in the place of the last one that is under a heat,
 * else onto the food before its last heat. */
export function putOn(next: Chain, sauce: Sauce): void {
  const heats = next.stages.flatMap((stage, place) => (stage.kind === 'heat' ? [place] : []))
  const used = heats.reverse().map((place) => sauceUsed(next.stages, place))
  const layer = next.layers?.find((one) => one.id === used.find(Boolean))
  if (layer) return void Object.assign(layer, { sauce, name: '' })
  const last = heats[0]
  if (last === undefined) return
  const stage = { kind: 'dress', id: freshId(next, 'dress'), layer: layerOf(next, sauce) }
  next.stages.splice(last, 0, stage as Chain['stages'][number])
}
