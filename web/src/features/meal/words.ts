import { clock } from '@/shared/format/time'

/** A sentence of the server with its moments on this clock. */
export const told = (says: string): string =>
  says.replace(/⟦([^⟧]+)⟧/g, (_, moment: string) => clock(moment))

/** How often supper is late, as one would say it. */
export function lateness(share: number): string {
  if (share < 0.02) return 'hardly ever late'
  if (share > 0.95) return 'late'
  if (share > 0.45) return 'late every other evening'
  return `late one evening in ${Math.max(2, Math.round(1 / share))}`
}
