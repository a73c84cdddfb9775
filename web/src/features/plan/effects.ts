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

function signed(minutes: number): string {
  const whole = Math.round(minutes)
  return whole === 0 ? '0' : `${whole > 0 ? '+' : '−'}${Math.abs(whole)}`
}

/** "700 to 1500 W moves supper by +6 to −3 min"; nothing where it moves by less than a minute. */
export function effectWords(effect?: Effect): string {
  if (!effect) return ''
  const most = Math.max(Math.abs(effect.plate_low_min), Math.abs(effect.plate_high_min))
  if (most < 0.75) return 'hardly moves supper'
  return `${effect.low} to ${effect.high} ${effect.unit} moves supper by ${signed(effect.plate_low_min)} to ${signed(effect.plate_high_min)} min`
}
