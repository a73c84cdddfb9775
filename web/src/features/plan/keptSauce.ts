import { api, ask, type Dish, type KeptSauce, type Problem } from '@/api/client'

/** A kept sauce as a dish holds it: a copy in grams, simmered where the recipe says so. */
export async function keptSauceForDish(
  kept: KeptSauce,
): Promise<{ sauce?: Dish['sauce']; problem?: Problem }> {
  const { name, kind, lines, own, simmer } = kept.document
  const { data, problem } = await ask(() =>
    api.POST('/api/v1/sauces/analyse', { body: { name, kind, lines, own, simmer } }),
  )
  if (!data) return { problem }
  const used = (own ?? []).filter((item) => data.sauce.some((line) => line.ingredient === item.key))
  return { sauce: { name, lines: data.sauce, own: used, sauce_id: kept.id } }
}
