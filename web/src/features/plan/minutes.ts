/** Minutes as people list them: "2, 5" or "2 5.5" or "0; 3,5"; undefined where something else stands there. */
export function minutesOf(text: string): number[] | undefined {
  const parts = text
    .trim()
    .split(/[;\s]+|,\s+|,$/)
    .filter(Boolean)
  const found = parts.map((part) => Number(part.replace(',', '.')))
  return found.every((n) => Number.isFinite(n) && n >= 0) ? found.sort((a, b) => a - b) : undefined
}
