import type { CookSummary } from '@/api/client'
import { longDate } from '@/shared/format/time'

const TENDER: Record<string, string> = {
  sliceable: 'sliced cleanly',
  tough: 'tough',
  tug: 'a little tug',
  falls: 'fell apart',
  shreds: 'shredded',
  mushy: 'mushy',
}

/** "fell apart, sticky, amber", or what is missing. */
export function outcomeWords(cook: CookSummary): string {
  const { tenderness, crust, colour } = cook.outcome ?? { tenderness: '', crust: '', colour: '' }
  const said = [TENDER[tenderness] ?? tenderness, crust, colour].filter(Boolean)
  if (said.length) return said.join(', ')
  return cook.ended_at ? 'nobody said how it was' : 'on the stove now'
}

/** "Fri, 13 Nov 2026, 18:05". */
export const whenWords = (cook: CookSummary): string => longDate(cook.started_at)

/** Minutes more or less than planned, with a sign; empty where nobody told. */
export function difference(actual: number | null | undefined, planned: number): string {
  if (actual === null || actual === undefined) return ''
  const gap = Math.round(actual - planned)
  if (Math.abs(gap) < 20) return 'as planned'
  const text = Math.abs(gap) < 90 ? `${Math.abs(gap)} s` : `${Math.round(Math.abs(gap) / 60)} min`
  return gap > 0 ? `${text} longer` : `${text} less`
}
