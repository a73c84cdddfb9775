import type { Answers, Beginning, Choices, Cut } from '@/api/client'

/** The nine taps of a newcomer. Nothing is asked about the kitchen. */
export type TapKey =
  'cut' | 'state' | 'mass' | 'thickness' | 'heat' | 'bite' | 'finish' | 'sauce' | 'when'

/** What was answered, as it was tapped; '' stands for none. */
export type Told = Partial<Record<TapKey, string>>

export interface Option {
  key: string
  text: string
  hint?: string
  cut?: string
  heat?: string
  swatch?: string
  usual?: boolean
  /** A thickness that is drawn [mm]. */
  mm?: number
}

export interface Tap {
  key: TapKey
  question: string
  options: Option[]
  /** A figure of one's own, in place of the offered ones. */
  own?: { label: string; unit: string; step: number; usual: number }
}

export const ORDER: TapKey[] = [
  'cut',
  'state',
  'mass',
  'thickness',
  'heat',
  'bite',
  'finish',
  'sauce',
  'when',
]
export const BOTTLE = 'bottle'

/** Masses that are offered: half, usual and more, to a round 100 g. */
export function masses(cut: Cut): number[] {
  return [0.5, 0.75, 1, 1.5].map((share) =>
    Math.max(0.1, Math.round(cut.mass_kg * share * 10) / 10),
  )
}

/** How many pieces so much comes to, at the usual mass of one. */
export function piecesFor(cut: Cut, kg: number): number {
  return Math.max(1, Math.round((cut.pieces * kg) / cut.mass_kg))
}

/** Thin, usual and thick, told in fingers too. */
export function thicknesses(cut: Cut): { mm: number; word: string }[] {
  const thin = Math.round((cut.thin_mm + cut.thickness_mm) / 2 / 5) * 5
  const thick = Math.round((cut.thick_mm + cut.thickness_mm) / 2 / 5) * 5
  const found = [
    { mm: Math.min(thin, cut.thickness_mm - 1), word: 'thinner than usual' },
    { mm: cut.thickness_mm, word: 'usual' },
    { mm: thick, word: 'thick' },
  ]
  return found.filter((f, i) => i === 1 || f.mm !== cut.thickness_mm)
}

/** "about two and a half fingers". */
export function fingers(mm: number): string {
  const halves = Math.max(1, Math.round((mm / 18) * 2))
  const whole = Math.floor(halves / 2)
  const words = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight']
  const name = words[whole] ?? String(whole)
  if (halves % 2 === 0) return `about ${name} finger${whole === 1 ? '' : 's'}`
  return whole === 0 ? 'about half a finger' : `about ${name} and a half fingers`
}

const WHENS: Record<string, { text: string; hint: string }> = {
  before: { text: 'before the last heat', hint: 'it caramelises with the food' },
  twice: { text: 'before it, and again in it', hint: 'a thicker, darker glaze' },
  after: { text: 'after the last heat', hint: 'the crust stays crisp' },
}

/** So many pieces, and their bones where they are counted. */
function piecesText(cut: Cut, kg: number): string {
  const many = piecesFor(cut, kg)
  const bones = cut.bones
    ? `, ${Math.round((cut.bones * cut.pieces * kg) / cut.mass_kg)} bones`
    : ''
  return `${many} ${cut.piece}${many === 1 ? '' : 's'}${bones}`
}

/** How amounts are written. */
export interface Units {
  mass: (kg: number) => string
  length: (mm: number) => string
}

/** One tap, with what can be answered. */
export function tapOf(
  key: TapKey,
  choices: Choices,
  told: Told,
  begun: Beginning | undefined,
  sauces: Option[],
  units: Units,
): Tap {
  const cut = choices.cuts.find((one) => one.key === told.cut) ?? choices.cuts[0]!
  const heats = (offered: Beginning['heats'] | undefined) =>
    (offered ?? []).map((one) => ({
      key: one.key,
      text: one.place,
      hint: one.hint,
      heat: one.key,
      usual: one.usual,
    }))
  const all: Record<TapKey, () => Omit<Tap, 'key'>> = {
    cut: () => ({
      question: 'What is on the counter?',
      options: choices.cuts.map((one) => ({ key: one.key, text: one.name, cut: one.key })),
    }),
    state: () => ({
      question: 'Fridge or freezer?',
      options: [
        { key: 'fridge', text: 'the fridge' },
        { key: 'frozen', text: 'the freezer', hint: 'hard as a brick' },
      ],
    }),
    mass: () => ({
      question: 'How much is it?',
      options: masses(cut).map((kg) => ({
        key: String(kg),
        text: units.mass(kg),
        hint: piecesText(cut, kg),
        usual: kg === cut.mass_kg,
      })),
      own: { label: 'weighed', unit: 'kg', step: 0.1, usual: cut.mass_kg },
    }),
    thickness: () => ({
      question: 'How thick is one piece?',
      options: thicknesses(cut).map((one) => ({
        key: String(one.mm),
        text: units.length(one.mm),
        hint: fingers(one.mm),
        usual: one.mm === cut.thickness_mm,
        mm: one.mm,
      })),
      own: { label: 'measured', unit: 'mm', step: 5, usual: cut.thickness_mm },
    }),
    heat: () => ({ question: 'What makes it tender?', options: heats(begun?.heats) }),
    bite: () => ({
      question: 'How tender do you want it?',
      options: cut.bites.map((one) => ({ ...one, usual: one.key === cut.default_bite })),
    }),
    finish: () => ({
      question: 'What browns it at the end?',
      options: [
        ...heats(begun?.finishes),
        { key: '', text: 'nothing', hint: 'the one heat alone' },
      ],
    }),
    sauce: () => ({
      question: 'Which sauce?',
      options: [
        ...sauces,
        { key: BOTTLE, text: 'from a bottle', hint: 'its label is enough' },
        { key: '', text: 'none' },
      ],
    }),
    when: () => ({
      question: 'When does the sauce go on?',
      options: (begun?.whens ?? []).map((when, place) => ({
        key: when,
        text: WHENS[when]?.text ?? when,
        hint: WHENS[when]?.hint,
        usual: place === 0,
      })),
    }),
  }
  return { key, ...all[key]() }
}

/** Taps that have something to ask; what has one answer is not asked. */
export function asked(choices: Choices, told: Told, begun: Beginning | undefined): TapKey[] {
  const cut = choices.cuts.find((one) => one.key === told.cut)
  return ORDER.filter((key) => {
    if (key === 'bite') return !cut || cut.bites.length > 1
    if (key === 'when') return told.sauce !== '' && !(begun && begun.whens.length < 2)
    return true
  })
}

/** What a changed answer takes along: figures of another cut, moments of another heat. */
const HANGS_ON: Partial<Record<TapKey, TapKey[]>> = {
  cut: ['mass', 'thickness', 'heat', 'bite', 'finish', 'when'],
  heat: ['when'],
  bite: ['when'],
  finish: ['when'],
  sauce: ['when'],
}

/** The answers after one more tap. */
export function answered(told: Told, key: TapKey, answer: string): Told {
  const next = { ...told, [key]: answer }
  if (told[key] !== answer) for (const gone of HANGS_ON[key] ?? []) delete next[gone]
  return next
}

/** The answers as the server reads them. */
export function bodyOf(told: Told, sauce: Answers['sauce'], choices: Choices): Answers {
  const cut = choices.cuts.find((one) => one.key === told.cut)
  const kg = told.mass === undefined ? undefined : Number(told.mass)
  return {
    cut: told.cut,
    state: told.state,
    mass_kg: kg,
    pieces: cut && kg ? piecesFor(cut, kg) : undefined,
    thickness_mm: told.thickness === undefined ? undefined : Number(told.thickness),
    heat: told.heat,
    bite: told.bite,
    finish: told.finish || undefined,
    alone: told.finish === '',
    sauce: told.sauce ? sauce : undefined,
    when: told.sauce ? told.when : undefined,
  } as Answers
}

/** What is asked next: the first open one after this, or one that was left before it. */
export function nextTap(list: TapKey[], told: Told, key: TapKey): TapKey | undefined {
  const open = list.filter((one) => told[one] === undefined)
  return open.find((one) => ORDER.indexOf(one) > ORDER.indexOf(key)) ?? open[0]
}

/** What the hours of a heat hang on, and nothing else. */
export function timesBody(of: 'heat' | 'finish', body: Answers | undefined) {
  if (!body) return undefined
  const { cut, state, mass_kg, pieces, thickness_mm, heat, bite, finish, alone } = body
  const food = { cut, state, mass_kg, pieces, thickness_mm, of, bite }
  return of === 'heat' ? { ...food, finish, alone } : { ...food, heat }
}

/** Stages of the sentence by the tap that decided them. */
export function tapOfClause(stage: string): TapKey | undefined {
  const found: Record<string, TapKey> = {
    '': 'cut',
    cook: 'heat',
    finish: 'finish',
    brush: 'sauce',
    toss: 'sauce',
    pour: 'sauce',
  }
  return found[stage]
}

/** The drawing of a heat: one that cooks through looks otherwise than one that browns. */
export function pictureOf(tap: TapKey, heat: string): string {
  const slow: Record<string, string> = { oven: 'low_oven', slow_cooker: 'slow', smoker: 'smoke' }
  return tap === 'heat' ? (slow[heat] ?? heat) : heat
}
