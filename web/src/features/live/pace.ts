import type { Live } from '@/api/client'

type Paced = Pick<Live, 'rehearsal'>

/** The moment by the clock of a cook: that of a rehearsal runs faster than the one on the wall. */
export function cookTime(cook: Paced | undefined, now: Date): Date {
  const rehearsal = cook?.rehearsal
  if (!rehearsal) return now
  const gone = now.getTime() - new Date(rehearsal.real_at).getTime()
  return new Date(new Date(rehearsal.cook_at).getTime() + rehearsal.speed * gone)
}

/** The moment on the wall at which the clock of a cook reads this. */
export function wallTime(cook: Paced, at: Date): Date {
  const rehearsal = cook.rehearsal
  if (!rehearsal) return at
  const gone = at.getTime() - new Date(rehearsal.cook_at).getTime()
  return new Date(new Date(rehearsal.real_at).getTime() + gone / rehearsal.speed)
}

/** How many of its seconds go by in one. */
export const speedOf = (cook: Paced): number => cook.rehearsal?.speed ?? 1
