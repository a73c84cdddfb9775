import dayjs from 'dayjs'
import type { Choices, Cut, Dish } from '@/api/client'
import { biteHint, biteText } from '@/features/plan'

/** The nine taps of a newcomer. Nothing is asked about the kitchen. */
export interface Option {
  key: string
  text: string
  hint?: string
  cut?: string
  heat?: string
  swatch?: string
}

export interface Tap {
  key: string
  question: string
  options: Option[]
}

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

/** All taps for what was answered so far. */
export function taps(
  choices: Choices,
  answers: Record<string, string>,
  massText: (kg: number) => string,
  lengthText: (mm: number) => string,
): Tap[] {
  const cut = choices.cuts.find((c) => c.key === answers['cut']) ?? choices.cuts[0]!
  return [
    {
      key: 'cut',
      question: 'What is on the counter?',
      options: choices.cuts.map((c) => ({ key: c.key, text: c.name, cut: c.key })),
    },
    {
      key: 'state',
      question: 'Fridge or freezer?',
      options: [
        { key: 'fridge', text: 'the fridge' },
        { key: 'frozen', text: 'the freezer', hint: 'hard as a brick' },
      ],
    },
    {
      key: 'mass',
      question: 'How much is it?',
      options: masses(cut).map((kg) => ({
        key: String(kg),
        text: massText(kg),
        hint: `${piecesFor(cut, kg)} ${cut.piece}${piecesFor(cut, kg) === 1 ? '' : 's'}`,
      })),
    },
    {
      key: 'thickness',
      question: 'How thick is one piece?',
      options: thicknesses(cut).map((t) => ({
        key: String(t.mm),
        text: lengthText(t.mm),
        hint: `${t.word}, ${fingers(t.mm)}`,
      })),
    },
    {
      key: 'tenderise',
      question: 'What makes it tender?',
      options: choices.first_heats.map((h) => ({
        key: h.key,
        text: h.place,
        hint: h.hint,
        heat: h.key,
      })),
    },
    {
      key: 'bite',
      question: 'How tender do you want it?',
      options: cut.bites.map((b) => ({
        key: b,
        text: biteText(b, cut.key),
        hint: biteHint(b, cut.key),
      })),
    },
    {
      key: 'finish',
      question: 'What will you finish it under?',
      options: choices.finishes.map((f) => ({
        key: f.key,
        text: f.place,
        hint: f.hint,
        heat: f.key,
      })),
    },
    {
      key: 'sauce',
      question: 'Which sauce?',
      options: [
        ...choices.sauces.map((s) => ({ key: s.key, text: s.name, swatch: s.colour })),
        { key: '', text: 'none' },
      ],
    },
    {
      key: 'serve',
      question: 'When do you want to eat?',
      options: [
        { key: '', text: 'as soon as it can be' },
        { key: '3', text: 'in about 3 hours' },
        { key: '5', text: 'in about 5 hours' },
      ],
    },
  ]
}

/** A moment that people say: on the quarter of an hour, not before. */
function nextQuarter(moment: dayjs.Dayjs): string {
  const started = moment.startOf('minute')
  const whole = started.isBefore(moment) ? started.add(1, 'minute') : started
  return whole.minute(Math.ceil(whole.minute() / 15) * 15).toISOString()
}

/** The dish that the answers come to. */
export function dishOf(choices: Choices, answers: Record<string, string>, now: Date): Dish {
  const cut = choices.cuts.find((c) => c.key === answers['cut']) ?? choices.cuts[0]!
  const kg = Number(answers['mass'] || cut.mass_kg)
  const hours = Number(answers['serve'] || 0)
  const serve = hours ? nextQuarter(dayjs(now).add(hours, 'hour')) : null
  return {
    cut: cut.key,
    mass_kg: kg,
    pieces: piecesFor(cut, kg),
    thickness_mm: Number(answers['thickness'] || cut.thickness_mm),
    state: (answers['state'] || 'fridge') as Dish['state'],
    tenderise: (answers['tenderise'] || 'pressure') as Dish['tenderise'],
    bite: (answers['bite'] || cut.default_bite) as Dish['bite'],
    finish: (answers['finish'] || 'broiler') as Dish['finish'],
    want: 'amber',
    sauce: answers['sauce'] || null,
    coats: answers['sauce'] ? 1 : 0,
    serve_at: serve,
  }
}
