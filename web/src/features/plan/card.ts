import type { ChainForecast } from '@/api/client'
import type { Degrees } from '@/shared/composables/useUnits'
import { clock, day, duration, stopwatch } from '@/shared/format/time'
import { temperature } from '@/shared/format/units'
import { milestoneWord } from '@/shared/ui/glaze'
import { capital } from '@/shared/format/words'

/** One line of the clock: when, what, and how long it takes. */
interface Line {
  key: string
  at: string
  text: string
  long: string
  who: string
}

/** What is done or looked for under one fire, in seconds under it. */
interface FireCard {
  stage: string
  says: string
  marks: { at: string; text: string }[]
}

/** A whole cook on one page. */
export interface Card {
  title: string
  when: string
  lay: { title: string; things: string[] }[]
  lines: Line[]
  fires: FireCard[]
  mind: string[]
}

const SHORTEST_S = 45 // of a machine's wait that is worth a line
const SHELVES: [string, string][] = [
  ['food', 'Food'],
  ['layer', 'What goes on it'],
  ['machine', 'Machines'],
  ['thing', 'At hand'],
]

export function card(forecast: ChainForecast, now: Date, degrees: Degrees): Card {
  const on = day(forecast.serve_at, now)
  const eat = `eat about ${clock(forecast.serve_at)}${on === 'today' ? '' : ` ${on}`}`
  const range = `${clock(forecast.serve_low_at)} to ${clock(forecast.serve_high_at)}`
  return {
    title: forecast.title,
    when: `Start ${clock(forecast.start_at)}, ${eat} (${range}, 8 evenings in 10)`,
    lay: SHELVES.map(([kind, title]) => ({
      title,
      things: forecast.preparation.filter((one) => one.kind === kind).map((one) => one.text),
    })).filter((shelf) => shelf.things.length),
    lines: lines(forecast),
    fires: forecast.fires.map((fire) => fireCard(fire, forecast)),
    mind: mind(forecast, degrees),
  }
}

/** Hands, checks, fires and long waits in the order of the clock. */
function lines(forecast: ChainForecast): Line[] {
  return forecast.links
    .filter((one) => one.who !== 'machine' || one.band.likely_s >= SHORTEST_S)
    .map((one) => ({ one, at: Date.parse(one.starts_at) }))
    .sort((a, b) => a.at - b.at)
    .map(({ one }) => ({
      key: one.key,
      at: clock(one.starts_at),
      text: one.label,
      long: duration(one.band.likely_s),
      who: one.who,
    }))
}

function fireCard(fire: ChainForecast['fires'][number], forecast: ChainForecast): FireCard {
  const { glaze } = fire
  const clause = forecast.sentence.find((one) => one.stage === fire.stage)?.text ?? fire.heat
  const marks = [
    ...glaze.coats.filter((c) => c.at_s > 0).map((c) => ({ s: c.at_s, text: 'a coat goes on' })),
    ...glaze.flips_s.filter((s) => s > 0).map((s) => ({ s, text: 'turn it' })),
  ]
  if (fire.by !== 'colour') marks.push({ s: fire.timer_s, text: 'out, by the clock' })
  else {
    if (glaze.look_from_s > 0) marks.push({ s: glaze.look_from_s, text: 'look, and go on looking' })
    const { opens_s, closes_s } = glaze.window
    const goal = milestoneWord(glaze.want, glaze.caramelises)
    if (opens_s !== null && !glaze.window.empty)
      marks.push({ s: opens_s, text: `${goal} may be there: out when it is` })
    if (closes_s !== null && !glaze.window.empty)
      marks.push({ s: closes_s, text: 'out at the latest' })
  }
  return {
    stage: fire.stage,
    says: capital(clause),
    marks: marks.sort((a, b) => a.s - b.s).map((m) => ({ at: stopwatch(m.s), text: m.text })),
  }
}

/** Stops and careful things, each once, and what the food holds. */
function mind(forecast: ChainForecast, degrees: Degrees): string[] {
  const told = forecast.watch_outs.filter((w) => w.level !== 'good to know').map((w) => w.message)
  const gates = forecast.gates
    .flatMap((gate) => (gate.safe_c === null ? [] : [temperature(gate.safe_c, degrees)]))
    .map((least) => `Its middle has to read ${least} or more before it goes on.`)
  const holds = forecast.allergens.length ? [`Holds ${forecast.allergens.join(', ')}.`] : []
  return [...new Set([...told, ...gates, ...holds, forecast.guidance])]
}

/** The same page as Markdown. */
export function markdown(page: Card): string {
  const list = (all: string[]) => all.map((one) => `- ${one}`).join('\n')
  const rows = page.lines.map((one) => `| ${one.at} | ${cell(one.text)} | ${one.long} |`)
  return [
    `# ${page.title}`,
    page.when,
    '## Lay out',
    ...page.lay.map((shelf) => `**${shelf.title}**\n\n${list(shelf.things)}`),
    '## By the clock',
    ['| When | What | How long |', '| --- | --- | --- |', ...rows].join('\n'),
    ...page.fires.map(
      (fire) => `## ${fire.says}\n\n${list(fire.marks.map((m) => `${m.at} ${m.text}`))}`,
    ),
    '## Mind',
    list(page.mind),
    '',
  ].join('\n\n')
}

const cell = (text: string) => text.replaceAll('|', '\\|')
