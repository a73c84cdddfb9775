import type { Ledger, Move } from '@/api/client'

/** From simple questions about portions to the steps of the ledger, and where its drawing puts things. */

export type Use = 'raw' | 'cook-in' | 'rub' | 'coat' | 'table'

export interface PortionPlan {
  name: string
  mass_g: number
  use: Use
  /** A raw-contact portion that is wanted on the plate after all. */
  later: boolean
  boil: boolean
}

export const USES: { key: Use; text: string; hint: string }[] = [
  { key: 'raw', text: 'goes on raw food', hint: 'marinade, or a brush that touched raw' },
  { key: 'rub', text: 'bowl that raw hands go into', hint: 'counts as touched' },
  { key: 'cook-in', text: 'cooks with the food', hint: 'in the pot until it boils through' },
  { key: 'coat', text: 'brushed on cooked food', hint: 'a glaze coat' },
  { key: 'table', text: 'goes to the table', hint: 'never near raw' },
]

const TOUCHED: Use[] = ['raw', 'rub']

/** Whether a portion meets raw food. */
export function touchesRaw(use: Use): boolean {
  return TOUCHED.includes(use)
}

/** The steps that the portions come to, in order. What is left in the bowl stays there. */
export function movesOf(portions: PortionPlan[]): Move[] {
  const splits: Move[] = portions.map((p) => ({
    kind: 'split',
    portion: 'bowl',
    to: p.name,
    mass_g: p.mass_g,
    use: p.use,
  }))
  const steps = portions.flatMap((p): Move[] => {
    const step = (kind: Move['kind']): Move => ({ kind, portion: p.name, to: '', mass_g: null })
    if (touchesRaw(p.use))
      return [step('touch'), ...(p.boil ? [step('boil')] : []), ...(p.later ? [step('serve')] : [])]
    return p.use === 'cook-in' ? [step('cook'), step('serve')] : [step('serve')]
  })
  return [...splits, ...steps]
}

/** The portions that a list of steps came from; what is not of that shape is passed over. */
export function portionsOf(moves: Move[]): PortionPlan[] {
  return moves
    .filter((m) => m.kind === 'split' && m.portion === 'bowl')
    .map((m) => {
      const own = moves.filter((x) => x.portion === m.to).map((x) => x.kind)
      const raw = own.includes('touch')
      return {
        name: m.to ?? '',
        mass_g: m.mass_g ?? 0,
        use: m.use ?? 'coat',
        later: raw && own.includes('serve'),
        boil: own.includes('boil'),
      }
    })
}

/** Whether every portion fits into the bowl together. */
export function leftInBowl(batch: number, portions: PortionPlan[]): number {
  return batch - portions.reduce((sum, p) => sum + p.mass_g, 0)
}

export interface Band {
  name: string
  y: number
  height: number
  contact: string
  end: 'plate' | 'stays' | 'stopped'
  boiled: boolean
  raw: boolean
  mass_g: number
}

/** The drawing: one band per portion, as thick as it is heavy, from the bowl to where it ends. */
export function bands(portions: PortionPlan[], ledger: Ledger, height: number): Band[] {
  const total = Math.max(
    1,
    portions.reduce((sum, p) => sum + p.mass_g, 0),
  )
  const gap = 22
  const room = Math.max(40, height - gap * (portions.length - 1))
  let y = 0
  return portions.map((p) => {
    const thick = Math.max(16, (p.mass_g / total) * room)
    const own = ledger.portions.find((x) => x.name === p.name)
    const stopped = ledger.stops.some((s) => s.portion === p.name)
    const served = ledger.flows.some((f) => f.source === p.name && f.target === 'plate')
    const band: Band = {
      name: p.name,
      y,
      height: thick,
      mass_g: p.mass_g,
      contact: own?.contact ?? 'clean',
      raw: touchesRaw(p.use),
      boiled: ledger.flows.some((f) => f.source === p.name && f.contact === 'boiled'),
      end: stopped ? 'stopped' : served ? 'plate' : 'stays',
    }
    y += thick + gap
    return band
  })
}
