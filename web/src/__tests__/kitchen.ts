import { flushPromises, mount, type ComponentMountingOptions } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { vi } from 'vitest'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { queries } from '@/app/queries'
import type {
  Analysis,
  Appliance,
  Chain,
  ChainForecast,
  Choices,
  Cook,
  Glaze,
  Kitchen,
  KeptSauce,
  Live,
  ReadLine,
  Stage,
  Step,
} from '@/api/client'

/** Made answers of the server, and a server that gives them. */

export const NOW = new Date('2030-05-04T16:00:00Z')
export const at = (seconds: number) => new Date(NOW.getTime() + seconds * 1000).toISOString()

const open = (likely: number | null) => ({
  low_s: likely && likely * 0.7,
  likely_s: likely,
  high_s: likely && likely * 1.4,
  reached: likely ? 1 : 0,
})
const site = (k: number) => ({
  set: open(60 * k),
  bubbling: open(80 * k),
  amber: open(200 * k),
  mahogany: open(300 * k),
  bitter: open(420 * k),
  burnt: open(600 * k),
  crisp: open(null),
})
const samples = Array.from({ length: 121 }, (_, i) => i * 10)

export const glaze: Glaze = {
  appliance: 'broiler',
  appliance_name: 'broiler',
  flips_s: [],
  back: null,
  want: 'amber',
  caramelises: true,
  horizon_s: 1200,
  sample_s: samples,
  face: samples.map(() => '#804020'),
  edge: samples.map(() => '#402010'),
  risk: samples.map((t) => Math.min(1, t / 1000)),
  wanted: samples.map((t) => (t > 200 && t < 400 ? 0.5 : 0)),
  coats: [{ at_s: 0, away_s: 0 }],
  milestones: { face: site(1), edge: site(0.6) },
  window: { opens_s: 200, closes_s: 260, empty: false, hit: 0.6 },
  gaps: [
    {
      sign: 'amber at the edges',
      to_wanted: { low_s: 70, likely_s: 90, high_s: 120, reached: 1 },
      wanted_to_burnt: { low_s: 30, likely_s: 80, high_s: null, reached: 1 },
    },
  ],
  look_from_s: 50,
  look_every_s: 10,
  looks_s: [50, 100, 150],
  seen: [],
  pull: null,
  possible: 1,
  calls: [
    { at_s: 40, level: 'look', says: 'Look now' },
    { at_s: 240, level: 'out', says: 'Out now.' },
  ],
  legend: [],
}

export const stage = (
  key: string,
  label: string,
  likely: number,
  before: number,
  more: Partial<Stage> = {},
): Stage => ({
  key,
  stage: key.split('.')[0]!,
  kind: key,
  label,
  who: 'machine',
  hidden: true,
  serial: true,
  note: '',
  band: { low_s: likely * 0.8, likely_s: likely, high_s: likely * 1.3 },
  before_serving: { low_s: before, likely_s: before, high_s: before },
  starts_at: at(5400 - before),
  ...more,
})

const assumed = (name: string, label: string, value: number, unit: string, known = '') => ({
  name,
  label,
  value,
  unit,
  known,
})

const warning = {
  stage: 'pot',
  source: 'estimated',
  repair: [] as Record<string, unknown>[],
  repair_says: '',
}
export const forecast: ChainForecast = {
  title: 'Beef short ribs, plum and black tea',
  sentence: [
    { stage: '', text: '1.6 kg of beef short ribs, 6 pieces' },
    { stage: 'pot', text: 'under pressure for 49 minutes' },
    { stage: 'broil', text: 'broiled until amber' },
  ],
  start_at: at(0),
  serve_at: at(5400),
  serve_low_at: at(5000),
  serve_high_at: at(6000),
  total: { low_s: 5000, likely_s: 5400, high_s: 6000 },
  headline_s: 3420,
  hands_s: 640,
  slack_s: 0,
  least_sure: 'broil.finish',
  crackles_mm: 0.3,
  least_sure_says: 'how fierce your heat is, so I call you early',
  links: [
    stage('salt.season', 'Dry and salt the 6 pieces', 130, 5400, { who: 'hands' }),
    stage('pot.come_up', 'Pot comes up to pressure', 660, 5270),
    stage('pot.hold', 'Under pressure', 2940, 4610, { hidden: false }),
    stage('broil.warm_up', 'Heat the broiler', 360, 1500, {
      serial: false,
      note: 'beside the other work',
    }),
    stage('broil.finish', 'Broil and look', 1670, 1670, { who: 'fire', hidden: false }),
  ],
  tails: [],
  slow_heats: [
    {
      stage: 'pot',
      heat: 'pressure',
      name: 'pressure pot',
      timer_s: 2940,
      come_up: { low_s: 550, likely_s: 660, high_s: 810 },
      target_c: 117.1,
      liquid_l: 0.32,
      fill: { share: 0.33, liquid_before_l: 0.32, liquid_after_l: 0.61, line: 0.667 },
      lost_share: 0,
      traces: {
        time_s: [0, 60],
        vessel_c: [20, 40],
        centre_c: [4, 5],
        mean_c: [4, 8],
        cook_min: [0, 0],
      },
    },
  ],
  fires: [{ stage: 'broil', heat: 'broiler', by: 'colour', timer_s: 480, glaze }],
  gates: [],
  tenderness: {
    low: 47,
    likely: 69,
    high: 95,
    target: 70,
    enough: 0.84,
    overdone: 0,
    site: 'centre',
  },
  inside: {
    core_low_c: 109,
    core_likely_c: 114,
    wanted_c: 63,
    log_low: 9,
    wanted_log: 6.5,
    danger_min: 19,
    gate: true,
  },
  layers: [{ layer: 'glaze', name: 'plum and black tea', grams: 175 }],
  watch_outs: [
    {
      ...warning,
      id: 'liquid-least',
      level: 'stop',
      message: 'Too little liquid.',
      why: 'It scorches.',
      repair: [{ op: 'add', path: '/stages/0/liquid_l', value: 0.32 }],
      repair_says: 'Use 0.32 L',
    },
    {
      ...warning,
      id: 'steam',
      level: 'careful',
      message: 'Release steam away from face.',
      why: 'It scalds.',
    },
  ],
  right: { all_of_it: 0.9, fires: { broil: 0.9 }, bite: 0.84 },
  course: [],
  preparation: [],
  energy_kwh: {},
  offers: [],
  joints: {},
  assumed: [assumed('pot_power_w', 'pot_power_w', 1000, 'W')],
  guidance: 'Usual guidance only.',
  allergens: ['soy'],
  allergens_unknown: [],
}

export const plan = (): Chain =>
  ({
    format: 'kettle.dish/2',
    name: 'Ribs',
    food: {
      cut: 'beef-short-ribs',
      mass_kg: 1.6,
      pieces: 6,
      thickness_mm: 45,
      state: 'fridge',
    },
    layers: [{ id: 'glaze', sauce: 'plum-tea' }],
    stages: [
      { kind: 'heat', id: 'pot', heat: 'pressure', until: { by: 'bite', bite: 'falls' } },
      { kind: 'dress', id: 'brush', layer: 'glaze', mm: 0.5 },
      {
        kind: 'heat',
        id: 'broil',
        heat: 'broiler',
        until: { by: 'colour', want: 'amber' },
        acts: [],
      },
    ],
    kitchen: {},
    serve_at: null,
  }) as unknown as Chain

const BITES: Record<string, string> = {
  tug: 'gives with a little tug',
  falls: 'falls off the bone',
  shreds: 'pulls into strands',
}
export const bites = (...keys: string[]) =>
  keys.map((key) => ({ key, text: BITES[key]!, hint: 'so tender' }))
const ribs = {
  key: 'beef-short-ribs',
  name: 'beef short ribs',
  piece: 'rib',
  species: 'beef',
  shape: 'slab',
  mass_kg: 1.6,
  pieces: 6,
  thickness_mm: 45,
  thin_mm: 20,
  thick_mm: 80,
  bites: bites('tug', 'falls', 'shreds'),
  default_bite: 'falls',
  release: 'mixed',
  safe_c: 63,
  bones: 0,
  lies: [
    { key: 'single', text: 'in one layer', frozen: false },
    { key: 'stacked', text: 'one on the other', frozen: false },
    { key: 'block', text: 'frozen together', frozen: true },
  ],
}
export const choices: Choices = {
  cuts: [
    ribs,
    {
      ...ribs,
      key: 'octopus',
      name: 'octopus',
      piece: 'arm',
      pieces: 8,
      mass_kg: 1.4,
      bites: bites('tug', 'falls'),
    },
  ],
  sauces: [
    {
      key: 'plum-tea',
      name: 'plum and black tea',
      colour: '#714045',
      sugars: 0.34,
      water: 0.5,
      caramelises: true,
    },
  ],
  heats: [
    {
      key: 'air_fryer',
      name: 'air fryer',
      dial_low: 100,
      dial_high: 230,
      dial_unit: '°C',
      slow: true,
      fierce: true,
      released: false,
    },
    {
      key: 'pressure',
      name: 'pressure pot',
      dial_low: 30,
      dial_high: 110,
      dial_unit: 'kPa',
      slow: true,
      fierce: false,
      released: true,
    },
    {
      key: 'broiler',
      name: "oven's broiler",
      dial_low: 0.05,
      dial_high: 0.35,
      dial_unit: 'm',
      slow: false,
      fierce: true,
      released: false,
    },
  ],
  ingredients: [],
  limits: {},
  typical: [
    assumed('rack_m', 'Food below the element', 0.15, 'm', 'rack'),
    assumed('pot_power_w', 'Pot heats with', 1000, 'W', 'pot'),
    assumed('bath_c', 'Water bath at', 65, '°C'),
    assumed('slow_power_w', 'Slow cooker heats with', 220, 'W'),
  ],
}

export const step = (key: string, state: string, more: Partial<Step> = {}): Step => ({
  key,
  label: key,
  who: 'hands',
  state,
  beside: false,
  begin_at: null,
  end_at: null,
  due_at: at(600),
  likely_s: 120,
  fire: '',
  act: '',
  gate: '',
  note: '',
  ...more,
})

/** Food that has been under the broiler for a minute. */
export const broiling: NonNullable<Live['fire']> = {
  name: 'broil',
  appliance: 'broiler',
  since: at(-60),
  before_s: 0,
  assumed: false,
  put_by: '',
  dial: { value: 0.15, unit: 'm', low: 0.05, high: 0.35, usual: [0.07, 0.14, 0.21], read: null },
}

export const rehearsal: NonNullable<Live['rehearsal']> = {
  speed: 20,
  kept: false,
  seed: 1,
  real_at: at(0),
  cook_at: at(0),
  strip_key: null,
  reads_c: null,
  feels: '',
  verdicts: [],
}

export const probe = {
  device: 'Probe',
  site: 'thickest place',
  temp_c: 61.4,
  taken_at: at(0),
  silent: false,
  loose: false,
  target_c: 80,
  ready: true,
  at: at(3600),
  low_at: at(3000),
  high_at: at(4200),
}

export const live: Live = {
  supper: null,
  id: 7,
  title: forecast.title,
  now: at(0),
  started_at: at(0),
  ended_at: null,
  rated: false,
  last_event: 0,
  undoable: 0,
  picture: {
    shows: 'board',
    vessel: '',
    cut: 'beef-short-ribs',
    pieces: 6,
    strands: false,
    cooked: false,
    coats: 0,
    heat_s: 0,
    rack_mm: null,
  },
  current: 'season',
  says: 'Pat the 6 ribs dry and salt all sides.',
  button: 'Salted',
  detail: 'Dry browns.',
  caution: '',
  eat_by: null,
  steps: [
    step('season', 'current', { begin_at: at(0) }),
    step('come_up', 'upcoming', { who: 'machine' }),
    step('check', 'upcoming', { who: 'gate' }),
    step('preheat', 'upcoming', { beside: true }),
  ],
  serve_at: at(5400),
  serve_low_at: at(5000),
  serve_high_at: at(6000),
  planned_serve_at: null,
  feel: null,
  fire: null,
  out: null,
  alarms: [],
  looks_s: [],
  glaze_key: '',
  glaze_ready: true,
  gate: null,
  back: null,
  checks: [],
  side_due: [],
  signs: [],
  allergens: [],
  allergens_unknown: [],
  waits_s: 0,
  probe: null,
  devices: [],
  offer: null,
  rehearsal: null,
  exits: [],
  scout: null,
  leavable: [],
  finished: false,
}

export const summary = {
  id: 3,
  title: forecast.title,
  started_at: at(-86_400),
  ended_at: at(-80_000),
  planned_s: 5400,
  actual_s: 5600,
  unknown_steps: 1,
  strip: {
    face: ['#804020', '#402010'],
    edge: ['#402010', '#101010'],
    horizon_s: 600,
    pulled_s: 300,
  },
  outcome: {
    tenderness: 'falls',
    crust: 'sticky',
    colour: 'amber',
    note: 'One coat next time.',
    recorded_at: at(-80_000),
  },
}

export const cook: Cook = {
  summary,
  dish: plan() as unknown as Cook['dish'],
  cooked: plan() as unknown as Cook['cooked'],
  again: plan() as unknown as Cook['again'],
  facts: {
    timer_s: 2940,
    target_c: 117.1,
    liquid_l: 0.32,
    sauce_g: 175,
    total: forecast.total,
    headline_s: forecast.headline_s,
    hands_s: forecast.hands_s,
    safety: { ...forecast.inside, rests_on: 'temperature', probe_c: null },
    glaze,
    warm_s: null,
    serve_at: null,
    allergens: [],
    allergens_unknown: [],
  },
  checks: [],
  accepted: [],
  glaze_after: glaze,
  signs: ['bubbling after 1:10'],
  moved: ['The broiler was left after 1:00, for the air fryer.'],
  stages: [
    {
      key: 'hold',
      label: 'Under pressure',
      who: 'machine',
      planned_low_s: 2940,
      planned_s: 2940,
      planned_high_s: 2940,
      actual_s: 2940,
      state: 'confirmed',
    },
    {
      key: 'open',
      label: 'Open it',
      who: 'hands',
      planned_low_s: 30,
      planned_s: 35,
      planned_high_s: 40,
      actual_s: null,
      state: 'unknown',
    },
    {
      key: 'finish',
      label: 'Broil and look',
      who: 'fire',
      planned_low_s: 300,
      planned_s: 450,
      planned_high_s: 700,
      actual_s: 650,
      state: 'confirmed',
    },
  ],
}

export const line = (
  text: string,
  grams: number | null,
  more: Partial<ReadLine> = {},
): ReadLine => ({
  text,
  key: grams === null ? null : 'thing',
  name: grams === null ? null : 'thing',
  mass_g: grams === null ? null : { low: grams, likely: grams, high: grams },
  unknown: '',
  problem: '',
  suggestions: [],
  ...more,
})

/** What the server makes of lines: every line weighs 60 g, and what holds a "?" was not understood. */
export const analysed = (lines: string[], more: Partial<Analysis> = {}): Analysis => {
  const read = lines.map((text) =>
    text.includes('?')
      ? line(text, null, {
          problem: `I do not know “${text.split(' ').at(-1)}”`,
          suggestions: ['honey'],
        })
      : line(text, 60),
  )
  const grams = 60 * read.filter((l) => !l.problem).length
  const gap = read.length * 60 - grams ? '1 line is not counted' : ''
  return {
    name: 'Sauce',
    lines: read,
    gap,
    yield_g: grams,
    yield_low_g: grams,
    yield_high_g: grams,
    yield_ml: grams * 0.8,
    parts: { water: 0.5, sucrose: 0.3, fructose: 0.15, salt: 0.05 },
    sugars: 0.45,
    thickness: 'thick: coats a spoon',
    allergens: [{ name: 'soy', brought_by: ['soy sauce'] }],
    sugars_from: [{ name: 'plum jam', share: 0.9 }],
    salt_from: [],
    browning_from: [],
    simmered: null,
    salt: null,
    ladder: [glaze],
    dials: ['broiler, rack 14 cm'],
    burns_first: 'Plum jam browns first.',
    calm: [{ do: 'a coat of 0.3 mm', later_s: 65 }],
    sauce: [{ ingredient: 'plum-jam', mass_g: grams }],
    ...more,
  } as Analysis
}

export const keptSauce = (
  id: number,
  name: string,
  more: Partial<KeptSauce['document']> = {},
): KeptSauce => ({
  id,
  version: 1,
  colour: '#714045',
  updated_at: NOW.toISOString(),
  used_by: [],
  document: {
    name,
    kind: 'glaze',
    lines: ['180 g plum jam', '2 tbsp soy sauce'],
    own: [],
    moves: [],
    for_kg: null,
    simmer: null,
    ...more,
  },
})

export const broiler: Appliance = {
  id: 2,
  version: 1,
  kind: 'oven-broiler',
  kind_name: "oven's broiler",
  type: 'broiler',
  finish: 'broiler',
  instead: '',
  shape: 'box',
  width_mm: 420,
  depth_mm: 360,
  height_mm: 200,
  given: {
    kind: 'oven-broiler',
    name: 'its broiler',
    in_use: true,
    rack_mm: 150,
    buttons: {},
    display: 'minutes',
    counts_up: false,
  },
  figures: [
    {
      name: 'element_w_m2',
      label: 'element',
      value: 2650,
      unit: 'W/m²',
      assumed: true,
      figure: 'broiler_w_m2',
    },
    {
      name: 'preheat_s',
      label: 'heats up in',
      value: 6,
      unit: 'min',
      assumed: true,
      figure: 'broiler_preheat_min',
    },
  ],
  racks_mm: [80, 150, 220],
  inside: {
    shape: 'box',
    width_mm: 420,
    depth_mm: 360,
    height_mm: 200,
    volume_l: null,
    least_liquid_l: 0,
    zones: 1,
  },
  shares: 'hot oven (assumed)',
  heat_says: 'not calibrated',
  observations: [],
  history: [{ observation_id: null, factor: 1, log_sd: 0.35 }],
}
export const pot: Appliance = {
  ...broiler,
  id: 3,
  kind: 'electric-pot',
  kind_name: 'electric pressure pot',
  type: 'pot',
  finish: null,
  shape: 'round',
  width_mm: 220,
  depth_mm: 220,
  height_mm: 150,
  given: {
    kind: 'electric-pot',
    name: 'the tall pot',
    in_use: true,
    buttons: {},
    display: 'minutes',
    counts_up: false,
  },
  figures: [
    {
      name: 'volume_l',
      label: 'holds',
      value: 5.7,
      unit: 'L',
      assumed: true,
      figure: 'pot_volume_l',
    },
  ],
  racks_mm: [],
  inside: {
    shape: 'round',
    width_mm: 220,
    depth_mm: 220,
    height_mm: 150,
    volume_l: 5.7,
    least_liquid_l: 0.25,
    zones: 1,
  },
  shares: '',
  heat_says: '',
  history: [],
}
export const kitchen: Kitchen = {
  settings: {
    altitude_m: null,
    temperature: 'C',
    measures: 'metric',
    hands: 1,
    meal_hours: ['19:00'],
    price_kwh: null,
    gear: ['thermometer'],
  },
  appliances: [broiler, pot],
  kinds: [{ key: 'air-fryer', name: 'air fryer', type: 'air_fryer', figures: [] }],
  figures: { rack_m: 0.15 },
  learnt: {},
  machines: {},
  gear: ['thermometer', 'trivet'],
  for_plans: { rack_m: 0.15, gear: ['thermometer'] },
}

export interface Asked {
  method: string
  path: string
  body: unknown
  headers: Headers
}
export type Answer = [status: number, body: unknown] | 'away'

/** Answers by "METHOD /path"; what is asked is kept. A function may answer differently each time, or later. */
export function serve(
  answers: Record<string, Answer | ((body: unknown) => Answer | Promise<Answer>)>,
): Asked[] {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (input: Request) => {
    const path = new URL(input.url).pathname.replace('/api/v1', '')
    const text = await input.text()
    const body: unknown = text ? JSON.parse(text) : undefined
    asked.push({ method: input.method, path, body, headers: input.headers })
    const found = answers[`${input.method} ${path}`]
    const answer =
      typeof found === 'function'
        ? await found(body)
        : (found ?? [404, { title: 'Not found', status: 404, detail: 'there is none', errors: [] }])
    if (answer === 'away') throw new TypeError('network')
    return new Response(JSON.stringify(answer[1]), {
      status: answer[0],
      headers: { 'content-type': 'application/json' },
    })
  })
  return asked
}

/** Mount a page with router and store at an address. */
export async function show(
  component: Component,
  path = '/',
  options: ComponentMountingOptions<unknown> = {},
) {
  const routes = [
    '/',
    '/plan/:id?',
    '/stove/:id?',
    '/log',
    '/log/:id',
    '/sauces',
    '/kitchen',
    '/meal/:id?',
  ].map((p) => ({ path: p, name: p.split('/')[1] || 'start', component: { template: '<i />' } }))
  routes[4]!.name = 'cook'
  const router = createRouter({ history: createMemoryHistory(), routes })
  await router.push(path)
  const page = mount(component, {
    ...options,
    global: {
      plugins: [router, createPinia(), [VueQueryPlugin, { queryClient: queries() }]],
      ...options.global,
    },
  } as ComponentMountingOptions<unknown>)
  await flushPromises()
  return { page, router }
}

/** Mount a part of a page, with what it asks the server. */
export const part = ((component: Component, options: ComponentMountingOptions<unknown> = {}) =>
  mount(component, {
    ...options,
    global: { ...options.global, plugins: [[VueQueryPlugin, { queryClient: queries() }]] },
  } as ComponentMountingOptions<unknown>)) as typeof mount
