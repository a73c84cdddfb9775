import { computed, onMounted, shallowRef } from 'vue'
import {
  api,
  ask,
  type Choices,
  type KeptSauce,
  type OwnIngredient,
  type Problem,
  type Sauce,
} from '@/api/client'
import { keptSauceForDish } from './keptSauce'

const BOTTLE_G = 300 // a bottle is one ingredient: its mass decides nothing

/** Every sauce that can be taken: the cook's own first, then those that ship. */
export function useSauceShelf(choices: () => Choices | undefined) {
  const kept = shallowRef<KeptSauce[]>([])
  onMounted(async () => {
    const { data } = await ask(() => api.GET('/api/v1/sauces'))
    kept.value = (data?.sauces ?? []).filter(
      ({ document }) => document.kind === 'glaze' || document.kind === 'table',
    )
  })
  const offers = computed(() => [
    ...kept.value.map((one) => ({
      key: `kept:${one.id}`,
      text: one.document.name,
      hint: 'yours',
      swatch: one.colour || undefined,
    })),
    ...(choices()?.sauces ?? []).map((one) => ({
      key: one.key,
      text: one.name,
      hint: `${Math.round(one.sugars * 100)} % sugars`,
      swatch: one.colour,
    })),
  ])

  /** A shipped sauce by its key, or a copy of one of the cook's own. */
  async function take(key: string): Promise<{ sauce?: Sauce; problem?: Problem }> {
    const own = kept.value.find((one) => key === `kept:${one.id}`)
    return own ? keptSauceForDish(own) : { sauce: key as Sauce }
  }
  return { offers, take }
}

/** A bottle of which only the label was read, as a sauce. */
export function bottled(item: OwnIngredient): NonNullable<Sauce> {
  return {
    name: item.name,
    lines: [{ ingredient: item.key, mass_g: BOTTLE_G }],
    own: [item],
  } as NonNullable<Sauce>
}
