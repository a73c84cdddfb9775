import dayjs from 'dayjs'
import 'dayjs/locale/en-gb'

dayjs.locale('en-gb')

/** Words for times. The clock time first, minutes second. */
type Moment = string | Date

/** "19:42" in the cook's own zone. */
export const clock = (moment: Moment): string => dayjs(moment).format('HH:mm')

/** "today", "tomorrow" or "Sat, 3 May" where it is not today. */
export function day(moment: Moment, now: Date): string {
  const gap = dayjs(moment).startOf('day').diff(dayjs(now).startOf('day'), 'day', true)
  if (Math.round(gap) === 0) return 'today'
  if (Math.round(gap) === 1) return 'tomorrow'
  return dayjs(moment).format('ddd, D MMM')
}

/** "3 May". */
export const date = (moment: Moment): string => dayjs(moment).format('D MMM')

/** "Sat, 3 May 2026, 19:42". */
export const longDate = (moment: Moment): string => dayjs(moment).format('ddd, D MMM YYYY, HH:mm')

/** Seconds from now until a moment; less than nothing once it is past. */
export const secondsUntil = (moment: Moment, now: Date): number => dayjs(moment).diff(now) / 1000

/** A moment some seconds before another. */
export const earlier = (moment: Moment, seconds: number): Date =>
  dayjs(moment).subtract(seconds, 'second').toDate()

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
