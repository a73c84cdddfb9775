const BOILS_C = 100
const COLDEST_C = -30

/** What is wrong with a temperature inside food; nothing where food can have it. */
export function oddInside(celsius: number | null): string {
  if (celsius === null || (celsius <= BOILS_C && celsius >= COLDEST_C)) return ''
  return celsius > BOILS_C ? 'No food is that hot inside.' : 'No food is that cold inside.'
}

/** Whether it would be one of food, had it been read in °F. */
export const meantFahrenheit = (celsius: number): boolean =>
  celsius > 0 && (celsius - 32) / 1.8 <= BOILS_C
