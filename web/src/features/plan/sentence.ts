import type { Choices, Cut, Dish, Fault } from '@/api/client'
import type { Degrees, KitchenUnits } from '@/shared/composables/useUnits'
import { clock, day } from '@/shared/format/time'
import { length, mass, temperature } from '@/shared/format/units'

/** A dish as one line of plain English: words between, and parts that can be changed. */
export interface Token {
  text: string
  part?: PartName
}

export type PartName =
  | 'cut'
  | 'mass'
  | 'pieces'
  | 'thickness'
  | 'state'
  | 'tenderise'
  | 'bite'
  | 'release'
  | 'finish'
  | 'want'
  | 'sauce'
  | 'coats'
  | 'serve'

/** Fields of the document that each part answers for. */
export const FIELDS: Record<PartName, string[]> = {
  cut: ['cut'],
  mass: ['mass_kg'],
  pieces: ['pieces'],
  thickness: ['thickness_mm'],
  state: ['state'],
  tenderise: [
    'tenderise',
    'liquid_l',
    'timer_min',
    'kitchen.low_oven_c',
    'kitchen.fry_c',
    'kitchen.smoke_c',
    'kitchen.bath_c',
  ],
  bite: ['bite'],
  release: ['release'],
  finish: ['finish', 'flips_min'],
  want: ['want'],
  sauce: ['sauce'],
  coats: ['coats', 'coat_mm', 'coats_min'],
  serve: ['serve_at'],
}

export const RELEASES: Record<string, { text: string; hint: string }> = {
  quick: { text: 'vented at once', hint: 'thin racks and vegetables' },
  mixed: {
    text: '10 minutes on its own, then vented',
    hint: 'large or fibrous pieces keep their juice',
  },
  natural: { text: 'left to fall by itself', hint: 'slowest and gentlest' },
}

const SMALL = ['no', 'one', 'two', 'three', 'four', 'five', 'six']

/** A value that may be a raw entry the server has yet to refuse. */
function shown(value: unknown, format: (n: number) => string): string {
  return typeof value === 'number' && Number.isFinite(value) ? format(value) : String(value)
}

/** "falls off the bone": as the cut's own row says it. */
export function biteText(bite: string, cut: Cut | undefined): string {
  return cut?.bites.find((one) => one.key === bite)?.text ?? bite
}

/** "plum and black tea", "no sauce", or the name of one's own. */
export function sauceText(dish: Dish, choices: Choices): string {
  const sauce = dish.sauce
  if (!sauce) return 'no sauce'
  if (typeof sauce === 'string') return choices.sauces.find((s) => s.key === sauce)?.name ?? sauce
  return sauce.name
}

/** "as soon as it can be" or "at 19:30 tomorrow". */
export function serveText(serveAt: string | null | undefined, now: Date): string {
  if (!serveAt) return 'as soon as it can be'
  const on = day(serveAt, now)
  return `at ${clock(serveAt)}${on === 'today' ? '' : ` ${on}`}`
}

/** Dials of a first heat that are the cook's wish for this dish, and stand in the sentence. */
const WISHED = ['low_oven_c', 'fry_c', 'smoke_c', 'bath_c', 'slow_power_w']

/** A dial of words (low, high) or of figures: what the dish states, and what holds without. */
export interface Dial {
  name: string
  settings: { name: string; value: number }[]
  stated: unknown
  usual: number
}

/** The word on a dial for what it is set to; undefined where it has none for that. */
export function settingOf(dial: Dial): { name: string; value: number } | undefined {
  const figure = Number(dial.stated ?? dial.usual)
  return dial.settings.find((s) => Math.abs(s.value - figure) <= 0.02 * s.value)
}

/** " at 65 °C", " on low", or " at 180 W" where the machine has no word for it. */
function dialText(dial: Dial | undefined, degrees: Degrees): string {
  if (!dial) return ''
  if (!dial.settings.length)
    return ` at ${shown(dial.stated ?? dial.usual, (c) => temperature(c, degrees))}`
  const word = settingOf(dial)
  return word ? ` on ${word.name}` : ` at ${shown(dial.stated ?? dial.usual, (w) => `${w} W`)}`
}

/** The dial of the first heat where the sentence tells it: its name, what the dish states, and what holds without. */
export function dialOf(
  dish: Dish,
  choices: Choices,
  figures: Record<string, number>,
): Dial | undefined {
  const heat = choices.first_heats.find((h) => h.key === (dish.tenderise ?? 'pressure'))
  const name = heat?.dial
  const usual =
    name === undefined
      ? undefined
      : (figures[name] ?? choices.typical.find((t) => t.name === name)?.value)
  if (name === undefined || usual === undefined || !WISHED.includes(name)) return undefined
  return {
    name,
    settings: heat?.settings ?? [],
    stated: (dish.kitchen as Record<string, unknown> | undefined)?.[name] ?? null,
    usual,
  }
}

/** The whole sentence. */
export function sentence(
  dish: Dish,
  choices: Choices,
  units: KitchenUnits,
  now: Date,
  degrees: Degrees = 'C',
  figures: Record<string, number> = {},
): Token[] {
  const first = choices.first_heats.find((h) => h.key === (dish.tenderise ?? 'pressure'))
  const dial = dialOf(dish, choices, figures)
  const cut = choices.cuts.find((c) => c.key === dish.cut)
  const much: Token = { text: shown(dish.mass_kg, (kg) => mass(kg, units)), part: 'mass' }
  const what: Token = { text: cut?.name ?? dish.cut, part: 'cut' }
  const one: Token[] = [{ text: 'one', part: 'pieces' }, { text: ' ' }, what, { text: ', ' }, much]
  const several: Token[] = [
    much,
    { text: ' of ' },
    what,
    { text: ' in ' },
    { text: `${shown(dish.pieces, String)} pieces`, part: 'pieces' },
  ]
  const tokens: Token[] = [
    ...(dish.pieces === 1 ? one : several),
    { text: ', ' },
    { text: `${shown(dish.thickness_mm, (mm) => length(mm, units))} thick`, part: 'thickness' },
    { text: ', ' },
    { text: dish.state === 'frozen' ? 'straight from frozen' : 'from the fridge', part: 'state' },
    { text: ', ' },
    {
      text: (first?.done ?? dish.tenderise ?? '') + dialText(dial, degrees),
      part: 'tenderise',
    },
    { text: ' until it ' },
    { text: biteText(dish.bite ?? 'falls', cut), part: 'bite' },
  ]
  if ((dish.tenderise ?? 'pressure') === 'pressure') {
    const release = dish.release ?? cut?.release ?? 'mixed'
    tokens.push({ text: ', ' }, { text: RELEASES[release]?.text ?? release, part: 'release' })
  }
  tokens.push(
    { text: '; then ' },
    {
      text: choices.finishes.find((f) => f.key === dish.finish)?.done ?? dish.finish ?? 'broiled',
      part: 'finish',
    },
    { text: ' ' },
    { text: wantText(dish), part: 'want' },
  )
  if (dish.sauce) {
    const count =
      typeof dish.coats === 'number'
        ? (SMALL[dish.coats] ?? String(dish.coats))
        : String(dish.coats)
    tokens.push(
      { text: ', with ' },
      { text: `${count} coat${dish.coats === 1 ? '' : 's'}`, part: 'coats' },
      { text: ' of ' },
    )
  } else {
    tokens.push({ text: ', with ' })
  }
  const turns = dish.flips_min ?? []
  tokens.push({ text: sauceText(dish, choices), part: 'sauce' })
  if (turns.length)
    tokens.push({ text: ', ' }, { text: `turned at ${turns.join(' and ')} min`, part: 'finish' })
  tokens.push(
    { text: ', on the table ' },
    { text: serveText(dish.serve_at, now), part: 'serve' },
    { text: '.' },
  )
  return tokens
}

/** "to amber" or "dark"; without sauce "until browned". */
export function wantText(dish: Dish): string {
  if (!dish.sauce) return dish.want === 'mahogany' ? 'until well browned' : 'until browned'
  return dish.want === 'mahogany' ? 'dark, to mahogany' : 'to amber'
}

/** Faults that belong to a part. */
export function faultsOf(part: PartName, faults: Fault[]): Fault[] {
  return faults.filter((f) =>
    FIELDS[part].some((field) => f.field === field || f.field.startsWith(`${field}.`)),
  )
}

/** Faults that no part of this sentence answers for. */
export function otherFaults(faults: Fault[], tokens: Token[]): Fault[] {
  const parts = tokens.flatMap((t) => (t.part ? [t.part] : []))
  return faults.filter((f) => !parts.some((part) => faultsOf(part, [f]).length))
}
