import type { Glaze, Live, Step } from '@/api/client'

/** The stations of the live strip: what is done to the food under its heat, and when to look. */
export interface Station {
  kind: 'coat' | 'turn' | 'look'
  says: string
  /** Seconds under the heat. */
  at_s: number
  state: 'done' | 'next' | 'later'
}

const SAME_S = 1

/** What is still to be done to the food in this heat, in order. */
function ahead(cook: Live): Step[] {
  const line = cook.steps.filter((step) => !step.beside)
  const found: Step[] = []
  for (const step of line.slice(line.findIndex((s) => s.key === cook.current) + 1)) {
    if (step.act) found.push(step)
    else if (step.who !== 'fire') break
  }
  return found
}

/** Moments of one kind; the last ones are those that are still to come. */
function placed(
  kind: Station['kind'],
  moments: number[],
  coming: number,
  says: (i: number) => string,
): Station[] {
  return moments.map((at_s, i) => ({
    kind,
    says: says(i),
    at_s,
    state: i < moments.length - coming ? 'done' : 'later',
  }))
}

/** A coat and a turn at one moment are one station: the food comes out once. */
function together(all: Station[]): Station[] {
  const found: Station[] = []
  for (const one of all.sort((a, b) => a.at_s - b.at_s)) {
    const last = found.at(-1)
    if (last && one.at_s - last.at_s < SAME_S && one.state === last.state)
      last.says = `${last.says}, ${one.says}`
    else found.push(one)
  }
  return found
}

/** Coats, turns and stirs in order of their time. The next one can be done where the wide button
 * does it: while the food is under the heat, and somebody said so. */
export function acts(cook: Live, glaze: Glaze): Station[] {
  const coming = ahead(cook)
  const coats = coming.filter((step) => step.act.includes('coat'))
  const turns = coming.filter((step) => step.act !== 'coat')
  const moments = glaze.coats.map((coat) => coat.at_s)
  const found = together([
    ...placed('coat', moments, coats.length, (i) => `coat ${i + 1}`),
    ...placed('turn', glaze.flips_s, turns.length, () => turnWord(cook)),
  ])
  const next = found.find((one) => one.state === 'later')
  if (next && ready(cook)) next.state = 'next'
  return found
}

/** Strands are stirred; pieces are turned. */
const turnWord = (cook: Live) => (cook.picture.strands ? 'stir' : 'turn')

/** Whether the wide button takes the food out for what comes next. */
function ready(cook: Live): boolean {
  if (!cook.fire || cook.fire.assumed || cook.gate || cook.offer) return false
  return cook.steps.find((step) => step.key === cook.current)?.who === 'fire'
}

/** The look that is due: the last one that is over with nothing told since, else the next. */
export function look(cook: Live, glaze: Glaze, underS: number): Station | undefined {
  const told = Math.max(-1, ...glaze.seen.map((seen) => seen.at_s))
  const open = cook.looks_s.filter((at) => at > told)
  const at_s = open.filter((at) => at <= underS).at(-1) ?? open[0]
  return at_s === undefined ? undefined : { kind: 'look', says: 'look', at_s, state: 'next' }
}
