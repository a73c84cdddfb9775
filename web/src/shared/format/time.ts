/** Words for times. The clock time first, minutes second. */

/** "19:42" in the cook's own zone. */
export function clock(moment: string | Date): string {
  const date = typeof moment === 'string' ? new Date(moment) : moment
  return `${String(date.getHours()).padStart(2, '0')}:${String(date.getMinutes()).padStart(2, '0')}`
}

/** "today", "tomorrow" or "Sat 3 May" where it is not today. */
export function day(moment: string | Date, now: Date): string {
  const date = typeof moment === 'string' ? new Date(moment) : moment
  const gap = Math.round((midnight(date) - midnight(now)) / 86_400_000)
  if (gap === 0) return 'today'
  if (gap === 1) return 'tomorrow'
  return date.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
}

function midnight(date: Date): number {
  return new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime()
}

/** "57 min", "1 h 31 min"; under a minute "40 s". */
export function duration(seconds: number): string {
  if (seconds < 60) return `${Math.round(seconds)} s`
  const total = Math.round(seconds / 60)
  if (total < 60) return `${total} min`
  return total % 60 ? `${Math.floor(total / 60)} h ${total % 60} min` : `${total / 60} h`
}

/** "7:34" minutes and seconds; "1:02:03" above an hour; "-0:12" when over. */
export function stopwatch(seconds: number): string {
  const sign = seconds < 0 ? '-' : ''
  const total = Math.abs(Math.round(seconds))
  const minutes = Math.floor(total / 60)
  const rest = String(total % 60).padStart(2, '0')
  if (minutes < 60) return `${sign}${minutes}:${rest}`
  return `${sign}${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`
}

/** "9 to 14 min", "1 h 6 min to 3 h 22 min", or "0:40 to 2:10" where both ends are short. */
export function span(low: number, high: number): string {
  if (high < 600) return `${stopwatch(low)} to ${stopwatch(high)}`
  if (high < 3570) return `${Math.round(low / 60)} to ${Math.round(high / 60)} min`
  return `${duration(low)} to ${duration(high)}`
}
