/** How often of ten; none and all only where it is nearly sure. */
export function ofTen(share: number): number {
  const whole = Math.round(10 * share)
  if (whole === 10 && share < 0.97) return 9
  if (whole === 0 && share > 0.03) return 1
  return whole
}

const counted = (count: number, word: string) => `${count} ${word}${count === 1 ? '' : 's'} in 10`

/** "7 evenings in 10". */
export const evenings = (share: number) => counted(ofTen(share), 'evening')

/** "7 times in 10", "nearly always", "hardly ever". */
export function often(share: number): string {
  const whole = ofTen(share)
  if (whole === 10) return 'nearly always'
  return whole === 0 ? 'hardly ever' : counted(whole, 'time')
}
