import { api, ask, type KeptSauce, type Problem, type Sauce, type SauceDraft } from '@/api/client'

/** A sauce as a dish holds it: a copy in grams, with what its portion touched on the way. */
export async function sauceForDish(
  draft: SauceDraft,
  sauceId: number | null,
): Promise<{ sauce?: Sauce; problem?: Problem }> {
  const { data, problem } = await ask(() =>
    api.POST('/api/v1/sauces/on-dish', { body: { ...draft, sauce_id: sauceId } }),
  )
  return { sauce: data, problem }
}

/** A kept sauce as a dish holds it. */
export const keptSauceForDish = (kept: KeptSauce) => sauceForDish(kept.document, kept.id)
