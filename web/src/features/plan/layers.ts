import type { Chain, ChainStage, Choices } from '@/api/client'

type Loose = Record<string, unknown>
type Sauce = NonNullable<Chain['layers']>[number]['sauce']

/** Every stage, those in rounds and in a split too. */
export function allStages(chain: Chain): ChainStage[] {
  return chain.stages.flatMap((stage) => {
    if (stage.kind === 'rounds') return [stage, ...(stage.stages as ChainStage[])]
    if (stage.kind === 'split')
      return [stage, ...stage.shares.flatMap((share) => share.stages as ChainStage[])]
    return [stage]
  })
}

/** Layers that a stage uses. */
function used(stage: ChainStage): string[] {
  const { layer, acts } = stage as unknown as { layer?: string; acts?: { layer?: string | null }[] }
  return [layer, ...(acts ?? []).map((act) => act.layer)].filter((one): one is string => !!one)
}

/** What a layer is called. */
export function layerName(chain: Chain, id: string, choices: Choices): string {
  const layer = (chain.layers ?? []).find((one) => one.id === id)
  if (!layer) return id
  const { sauce, name } = layer
  if (name) return name
  if (typeof sauce === 'string')
    return choices.sauces.find((one) => one.key === sauce)?.name ?? sauce
  return sauce ? sauce.name : id
}

/** Whether two sauces are the same one. */
function same(a: Sauce, b: Sauce): boolean {
  if (a && b && typeof a !== 'string' && typeof b !== 'string' && a.sauce_id && b.sauce_id)
    return a.sauce_id === b.sauce_id
  return JSON.stringify(a) === JSON.stringify(b)
}

/** The layer that holds this sauce; a new one where there is none. The chain is changed. */
export function layerOf(next: Chain, sauce: Sauce): string {
  const layers = (next.layers ??= [])
  const found = layers.find((one) => one.sauce && same(one.sauce, sauce))
  if (found) return found.id
  let id = 'sauce'
  for (let n = 2; layers.some((one) => one.id === id); n++) id = `sauce-${n}`
  layers.push({ id, sauce } as (typeof layers)[number])
  return id
}

/** A dry layer of its own: a rub, sugar, a skin of baking powder. */
export function dryLayer(next: Chain): string {
  const layers = (next.layers ??= [])
  let id = 'dry'
  for (let n = 2; layers.some((one) => one.id === id); n++) id = `dry-${n}`
  layers.push({ id, name: 'spice rub', sauce: null, spice_g: 15 } as (typeof layers)[number])
  return id
}

/** Layers that no stage uses any more go; those that none used before stay. */
export function withoutLeft(before: Chain, next: Chain): void {
  const had = new Set(allStages(before).flatMap(used))
  const has = new Set(allStages(next).flatMap(used))
  next.layers = (next.layers ?? []).filter((one) => has.has(one.id) || !had.has(one.id))
}

/** Give a stage, or the coats of a heat, this layer. */
export function putLayer(stage: ChainStage, layer: string | null): ChainStage {
  const next = JSON.parse(JSON.stringify(stage)) as Loose
  if (stage.kind === 'heat')
    next.acts = ((next.acts ?? []) as Loose[]).map((act) =>
      act.do === 'coat' ? { ...act, layer } : act,
    )
  else next.layer = layer
  if (layer === null && next.massaged) next.massaged = false // nothing is left to work in
  return next as unknown as ChainStage
}

/** The layer that a stage uses, the first where there are several. */
export const layerIn = (stage: ChainStage): string | undefined => used(stage)[0]

/** Whether a stage wants a sauce, or may have a dry layer. */
export function takesLayer(stage: ChainStage): 'sauce' | 'dry' | undefined {
  if (stage.kind === 'dress' || stage.kind === 'marinate') return 'sauce'
  if (stage.kind === 'season') return 'dry'
  return stage.kind === 'heat' && layerIn(stage) ? 'sauce' : undefined
}
