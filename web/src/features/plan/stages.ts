import type { Chain, ChainHeat, ChainStage, Choices } from '@/api/client'

/** One figure of a stage that a cook may change, or a choice among words. */
export interface Field {
  key: string
  label: string
  unit?: string
  least?: number
  most?: number
  step?: number
  options?: { value: string; text: string }[]
  /** What stands in the empty box. */
  empty?: string
  /** Something other than a number: yes or no, minutes as a list, a few words. */
  as?: 'yes' | 'minutes' | 'words'
}
type Cut = Choices['cuts'][number]

type ChainHeatStage = Extract<ChainStage, { kind: 'heat' }>
type Loose = Record<string, unknown>
const USUAL_MIN = 6 // of a heat that ends by its look, for where its turns are put
const MOST_ACTS = 4

const pick = (...texts: [string, string][]) => texts.map(([value, text]) => ({ value, text }))
const WANTS = pick(['amber', 'amber'], ['mahogany', 'mahogany'])
const DRESSINGS = pick(
  ['brush', 'brushed'],
  ['toss', 'tossed'],
  ['dip', 'dipped'],
  ['pour', 'poured over'],
)
const HOLDS = pick(
  ['covered', 'covered'],
  ['warm place', 'in a warm place'],
  ['chilled', 'chilled'],
)
const APART = pick(
  ['shred', 'pulled into strands'],
  ['bones', 'taken off the bone'],
  ['portions', 'cut into portions'],
)
const THAWS = pick(['fridge', 'in the fridge'], ['cold water', 'in cold water'])
const RELEASES = pick(
  ['quick', 'vented at once'],
  ['mixed', 'left a while, then vented'],
  ['natural', 'left until it falls'],
)

/** The sauce that is brushed on in a heat: the first there is. */
export function sauceOf(chain: Chain): string | undefined {
  return (chain.layers ?? []).find((layer) => layer.sauce)?.id
}

const doing = (what: string) => (act: Act) =>
  act.do === what || (what === 'turn' && act.do === 'stir')

/** What can be changed of a stage, by its kind. */
export function fieldsOf(
  stage: ChainStage,
  heats: ChainHeat[],
  cut?: Cut,
  frozen = false,
): Field[] {
  const long = (key: string, label: string, unit: string, step: number): Field => ({
    key,
    label,
    unit,
    step,
  })
  switch (stage.kind) {
    case 'heat':
      return [
        ...heatFields(stage as unknown as Loose, heats, cut),
        ...lying(stage, heats, cut, frozen),
      ]
    case 'rest':
      return [
        long('minutes', 'how long', 'min', 1),
        { key: 'covered', label: 'covered', as: 'yes' },
      ]
    case 'hold':
      return [{ key: 'how', label: 'how', options: HOLDS }, long('minutes', 'how long', 'min', 5)]
    case 'beside':
      return [
        { key: 'name', label: 'what', as: 'words' },
        long('minutes', 'how long', 'min', 1),
        { key: 'hands', label: 'takes hands all the time', as: 'yes' },
      ]
    case 'season':
      return [
        long('sit_min', 'it sits', 'min', 10),
        ...(stage.layer
          ? [{ key: 'massaged', label: 'massaged in, not patted on', as: 'yes' as const }]
          : []),
      ]
    case 'marinate':
      return [long('hours', 'how long', 'h', 0.5)]
    case 'dress':
      return [{ key: 'how', label: 'how', options: DRESSINGS }, long('mm', 'how thick', 'mm', 0.1)]
    case 'thaw':
      return [
        { key: 'where', label: 'where', options: THAWS },
        { ...long('hours', 'how long', 'h', 0.5), empty: 'as long as it takes' },
      ]
    case 'take_apart':
      return [
        { key: 'how', label: 'what is done', options: APART },
        ...(stage.how === 'portions' ? [long('pieces', 'portions', '', 1)] : []),
      ]
    case 'drain':
    case 'blot':
    case 'cool':
    case 'rounds':
    case 'split':
      return []
  }
}

/** What ends a heat, as its row knows it. */
function endsOf(row: ChainHeat | undefined) {
  return [
    { value: 'minutes', text: 'by the clock' },
    ...(row?.slow
      ? [
          { value: 'bite', text: 'until it is tender' },
          { value: 'core', text: 'until it is hot inside' },
        ]
      : []),
    ...(row?.fierce ? [{ value: 'colour', text: 'by its look' }] : []),
  ]
}

/** How the pieces lie in a heat that goes through them. */
function lying(stage: ChainHeatStage, heats: ChainHeat[], cut?: Cut, frozen = false): Field[] {
  const row = heats.find((heat) => heat.key === stage.heat)
  const ways = (cut?.lies ?? []).filter((way) => frozen || !way.frozen)
  if (!row?.slow || stage.until.by === 'colour' || ways.length < 2) return []
  const usual = { value: '', text: 'as usual in this heat' }
  const options = [usual, ...ways.map((way) => ({ value: way.key, text: way.text }))]
  return [{ key: 'lies', label: 'how the pieces lie', options }]
}

function heatFields(stage: Loose, heats: ChainHeat[], cut?: Cut): Field[] {
  const row = heats.find((heat) => heat.key === stage.heat)
  const by = (stage.until as Loose).by as string
  const found: Field[] = [
    {
      key: 'heat',
      label: 'which heat',
      options: heats.map((heat) => ({ value: heat.key, text: heat.name })),
    },
    { key: 'until.by', label: 'it ends', options: endsOf(row) },
  ]
  // What ends by bite or core finds its own timer, unless the cook sets one.
  if (by !== 'colour')
    found.push({
      key: 'until.minutes',
      label: 'timer',
      unit: 'min',
      least: 0.5,
      most: 2880,
      empty: by === 'minutes' ? undefined : 'as long as it takes',
    })
  if (by === 'core')
    found.push({ key: 'until.core_c', label: 'inside', unit: '°C', least: 30, most: 99 })
  if (by === 'bite')
    found.push({
      key: 'until.bite',
      label: 'how tender',
      options: (cut?.bites ?? []).map((one) => ({ value: one.key, text: one.text })),
    })
  if (by === 'colour') found.push({ key: 'until.want', label: 'colour', options: WANTS })
  if (row && row.dial_unit !== 'W' && row.dial_unit !== 'kPa')
    found.push({
      key: 'dial',
      label: row.dial_unit === 'm' ? 'from the element' : 'set to',
      unit: row.dial_unit === 'm' ? 'cm' : row.dial_unit,
      least: row.dial_unit === 'm' ? row.dial_low * 100 : row.dial_low,
      most: row.dial_unit === 'm' ? row.dial_high * 100 : row.dial_high,
      step: row.dial_unit === 'm' ? 1 : 5,
    })
  if (row?.released)
    found.push({
      key: 'release',
      label: 'pressure is',
      options: [{ value: '', text: 'as usual for the cut' }, ...RELEASES],
    })
  if (row?.fierce && (by === 'minutes' || by === 'colour')) found.push(...actFields(stage))
  return found
}

/** Coats and turns in a heat: how many, and their minutes. */
function actFields(stage: Loose): Field[] {
  const acts = (stage.acts ?? []) as Act[]
  const found: Field[] = [
    { key: 'acts.turn', label: 'turned', unit: '', least: 0, most: 4, step: 1 },
  ]
  if (acts.some(doing('turn'))) found.push({ key: 'at.turn', label: 'turned at', as: 'minutes' })
  found.push({ key: 'acts.coat', label: 'coats in it', unit: '', least: 0, most: 4, step: 1 })
  if (acts.some(doing('coat')))
    found.push({
      key: 'at.coat',
      label: 'brushed at',
      as: 'minutes',
      empty: 'once the last has set',
    })
  return found
}

type Act = { do: string; at_min?: number | null; layer?: string | null }

/** So many coats or turns in a heat: turns at even parts of its time, coats once the last has set. */
function withActs(stage: Loose, what: string, many: number, sauce?: string): Act[] {
  const others = ((stage.acts ?? []) as Act[]).filter((act) => !doing(what)(act))
  const minutes = ((stage.until as Loose).minutes as number | null) ?? USUAL_MIN
  const made = Array.from({ length: Math.max(0, Math.min(MOST_ACTS, Math.round(many))) }, (_, i) =>
    what === 'coat'
      ? { do: 'coat', at_min: null, layer: sauce ?? null }
      : { do: what, at_min: Math.round((10 * minutes * (i + 1)) / (many + 1)) / 10 },
  )
  return [...others, ...made].sort((a, b) => (a.at_min ?? 0) - (b.at_min ?? 0))
}

/** The minutes of coats or turns that have one. */
const minutesIn = (acts: Act[], what: string) =>
  acts.filter(doing(what)).flatMap((act) => (act.at_min == null ? [] : [act.at_min]))

/** Coats or turns at these minutes: coats past the list go on once the last has set. */
function withMinutes(stage: Loose, what: string, minutes: number[]): Act[] {
  const acts = (stage.acts ?? []) as Act[]
  const own = acts.filter(doing(what))
  const many = what === 'turn' ? minutes.length : Math.max(own.length, minutes.length)
  const made = Array.from({ length: Math.min(MOST_ACTS, many) }, (_, i) => ({
    ...(own[i] ?? own.at(-1) ?? { do: what }),
    at_min: minutes[i] ?? null,
  }))
  const others = acts.filter((act) => !doing(what)(act))
  return [...others, ...made].sort((a, b) => (a.at_min ?? 0) - (b.at_min ?? 0))
}

/** The value of a field; a distance is shown in centimetres. */
export function read(stage: ChainStage, field: Field): unknown {
  if (field.key.startsWith('at.'))
    return minutesIn(((stage as unknown as Loose).acts ?? []) as Act[], field.key.slice(3))
  const what = field.key.startsWith('acts.') && field.key.slice(5)
  if (what) return (((stage as unknown as Loose).acts ?? []) as Act[]).filter(doing(what)).length
  const found = field.key.split('.').reduce<unknown>((at, key) => (at as Loose)?.[key], stage)
  return field.unit === 'cm' && typeof found === 'number' ? Math.round(found * 100) : found
}

/** The stage with a field changed, and what hangs on it kept in step. */
export function changed(
  stage: ChainStage,
  field: Field,
  value: unknown,
  heats: ChainHeat[],
  sauce?: string,
): ChainStage {
  const next = JSON.parse(JSON.stringify(stage)) as Loose
  if (field.key.startsWith('at.')) {
    next.acts = withMinutes(next, field.key.slice(3), value as number[])
    return next as unknown as ChainStage
  }
  if (field.key.startsWith('acts.')) {
    next.acts = withActs(next, field.key.slice(5), Number(value ?? 0), sauce)
    return next as unknown as ChainStage
  }
  const worth = value === '' ? null : value // as usual
  const given = field.unit === 'cm' && typeof worth === 'number' ? worth / 100 : worth
  const way = field.key.split('.')
  const last = way.pop()!
  const at = way.reduce<Loose>((here, key) => here[key] as Loose, next)
  at[last] = given
  if (field.key === 'heat') anotherHeat(next, heats)
  if (field.key === 'until.by') next.until = usualEnd(given as string)
  return next as unknown as ChainStage
}

/** Another heat has its own dial, liquid and release, and perhaps another end. */
function anotherHeat(stage: Loose, heats: ChainHeat[]) {
  const row = heats.find((heat) => heat.key === stage.heat)
  Object.assign(stage, { dial: null, release: null, liquid_l: null, lies: null })
  if (!row?.fierce) stage.acts = []
  const by = (stage.until as Loose).by as string
  if (by === 'colour' && !row?.fierce) stage.until = usualEnd('bite')
  if ((by === 'bite' || by === 'core') && !row?.slow) stage.until = usualEnd('colour')
}

function usualEnd(by: string): Loose {
  const ends: Record<string, Loose> = {
    minutes: { by, minutes: 10 },
    core: { by, core_c: 75 },
    bite: { by, bite: 'tug' },
    colour: { by, want: 'amber' },
  }
  return ends[by]!
}

/** Where a stage stands: the list it is in, and its place there. A stage of rounds is named by its
 * round. */
export function find(chain: Chain, id: string): { list: ChainStage[]; place: number } | undefined {
  const plain = id.replace(/\.[1-8]$/, '')
  const lists = [
    chain.stages,
    ...chain.stages.flatMap((stage) => {
      if (stage.kind === 'rounds') return [stage.stages as ChainStage[]]
      if (stage.kind === 'split') return stage.shares.map((share) => share.stages as ChainStage[])
      return []
    }),
  ]
  for (const list of lists) {
    const place = list.findIndex((stage) => stage.id === id || stage.id === plain)
    if (place >= 0) return { list, place }
  }
  return undefined
}

/** The stage that a field of the document lies in: "stages.1.stages.0.mm" is of the brush. */
export function stageAt(chain: Chain, field: string): string | undefined {
  let at: unknown = chain
  let found: string | undefined
  for (const key of field.split('.')) {
    at = (at as Loose | undefined)?.[key]
    const named = at as { id?: string; kind?: string } | undefined
    if (named?.id && named.kind) found = named.id
  }
  return found
}

/** The rounds that a stage stands in. */
export function roundsOf(chain: Chain, id: string): (ChainStage & { kind: 'rounds' }) | undefined {
  const plain = id.replace(/\.[1-8]$/, '')
  return chain.stages.find(
    (one): one is ChainStage & { kind: 'rounds' } =>
      one.kind === 'rounds' && one.stages.some((inner) => inner.id === plain),
  )
}

/** A name that no other stage has: "rest", "rest-2". */
export function freshId(chain: Chain, kind: string): string {
  const stem = kind.replace('_', '-')
  let name = stem
  for (let n = 2; find(chain, name); n++) name = `${stem}-${n}`
  return name
}
