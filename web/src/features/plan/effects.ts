import type { Effect } from '@/api/client'

/** What each kitchen figure is called on the plan. */
export const FIGURE_WORDS: Record<string, string> = {
  altitude_m: 'Height above the sea',
  pot_power_w: 'Pot heats with',
  pot_volume_l: 'Pot holds',
  pot_gauge_kpa: 'Pot pressure',
  oven_c: 'Oven at',
  broiler_w_m2: "Broiler's heat on the food",
  rack_m: "Food below the broiler's element",
  air_fryer_c: 'Air fryer at',
  hot_oven_c: 'Hot oven at',
  hot_oven_h_w_m2_k: "Hot oven's air, still or fan",
  lid_c: 'Crisping lid at',
  grill_c: "Under the grill's lid",
  charcoal_c: 'Over the coals',
  contact_c: 'Contact grill at',
  contact_preheat_min: 'Contact grill heats up in',
  charcoal_preheat_min: 'Coals are ready in',
  low_oven_c: 'Low oven at',
  fry_c: 'Air fryer cooks through at',
  smoke_c: 'Smoker at',
  smoke_preheat_min: 'Smoker heats up in',
  bath_c: 'Water bath at',
  bath_power_w: 'Water bath heats with',
  bath_volume_l: 'Water bath holds',
  bath_preheat_min: 'Water bath heats up in',
  burner_w: 'Burner heats with',
  pan_volume_l: 'Stock pot holds',
  slow_power_w: 'Slow cooker heats with',
  slow_volume_l: 'Slow cooker holds',
  oven_preheat_min: 'Oven heats up in',
  broiler_preheat_min: 'Broiler heats up in',
  air_fryer_preheat_min: 'Air fryer heats up in',
  hot_oven_preheat_min: 'Hot oven heats up in',
  lid_preheat_min: 'Crisping lid heats up in',
  grill_preheat_min: 'Grill heats up in',
}

/** Low and high of a figure as a cook would say them; units that nobody cooks by stay in Kitchen. */
const ENDS: Record<string, [string, string]> = {
  pot_gauge_kpa: ['a weak pot', 'a strong one'],
  broiler_w_m2: ['a gentle broiler', 'a fierce one'],
  hot_oven_h_w_m2_k: ['still air', 'a fan'],
  altitude_m: ['at the sea', 'high up'],
}
const LEAST_MIN = 0.75

function moved(minutes: number): string {
  const whole = Math.round(Math.abs(minutes))
  if (whole === 0) return 'no difference'
  return `${whole} min ${minutes > 0 ? 'later' : 'sooner'}`
}

/** "a weak pot: 10 min later; a strong one: 5 min sooner"; nothing to say where it hardly matters. */
export function effectWords(effect?: Effect): string {
  if (!effect) return ''
  const { plate_low_min: low, plate_high_min: high, unit } = effect
  if (Math.max(Math.abs(low), Math.abs(high)) < LEAST_MIN) return 'hardly moves supper'
  const [from, to] = ENDS[effect.name] ?? [`${effect.low} ${unit}`, `${effect.high} ${unit}`]
  return `${from}: ${moved(low)}; ${to}: ${moved(high)}`
}

/** Figures that are known of a kitchen, grouped by what they are of: "pot 1,000 W, 6 L". */
const KNOWN: Record<string, [string, (value: number) => string]> = {
  rack_m: ['rack', (v) => `${Math.round(v * 100)} cm`],
  pot_power_w: ['pot', (v) => `${v.toLocaleString('en-GB')} W`],
  pot_volume_l: ['pot', (v) => `${v} L`],
  pan_volume_l: ['stock pot', (v) => `${v} L`],
  slow_volume_l: ['slow cooker', (v) => `${v} L`],
  bath_volume_l: ['water bath', (v) => `${v} L`],
  altitude_m: ['height', (v) => `${v} m`],
  air_fryer_c: ['air fryer', (v) => `${v} °C`],
  hot_oven_c: ['hot oven', (v) => `${v} °C`],
  broiler_preheat_min: ['broiler', (v) => `hot in ${v} min`],
  oven_preheat_min: ['oven', (v) => `hot in ${v} min`],
}

export function knownWords(figures: Record<string, number>): string {
  const found = new Map<string, string[]>()
  for (const [name, value] of Object.entries(figures)) {
    const known = KNOWN[name]
    if (known) found.set(known[0], [...(found.get(known[0]) ?? []), known[1](value)])
  }
  return [...found].map(([what, values]) => `${what} ${values.join(', ')}`).join(', ')
}
