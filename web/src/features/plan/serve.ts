import { clock, day } from '@/shared/format/time'

/** "at 19:30 tomorrow", or that it has no hour. */
export function serveText(serveAt: string | null | undefined, now: Date): string {
  if (!serveAt) return 'as soon as it can be'
  const on = day(serveAt, now)
  return `at ${clock(serveAt)}${on === 'today' ? '' : ` ${on}`}`
}
