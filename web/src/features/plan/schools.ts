import type { components } from '@/api/schema'
import { evenings } from '@/shared/format/share'
import { cost } from './right'

type Choice = components['schemas']['SchoolChoicePublic']

/** Shares of evenings that nobody tells apart. */
const SAME = 0.05

/** What a school changes, against the one that is followed: time, and how often it comes out right
 * where that moves. */
export function schoolWords(one: Choice, all: Choice[]): string {
  if (one.chosen) return one.why || 'as it is planned'
  if (one.later_s === null || one.right === null) return 'not with the rest of this plan'
  const now = all.find((other) => other.chosen)?.right ?? one.right
  const moves = Math.abs(one.right - now) >= SAME
  return moves ? `${cost(one.later_s)}, right ${evenings(one.right)}` : cost(one.later_s)
}
