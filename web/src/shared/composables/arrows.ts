import type { Directive } from 'vue'

const STEPS: Record<string, number> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }

/** Where an arrow key leads in a list: round at both ends, first and last by Home and End. */
export function nextPlace(key: string, place: number, count: number): number | null {
  if (key === 'Home') return 0
  if (key === 'End') return count - 1
  const step = STEPS[key]
  return step === undefined ? null : (place + step + count) % count
}

function move(event: KeyboardEvent) {
  const list = event.currentTarget as HTMLElement
  const buttons = [...list.querySelectorAll<HTMLButtonElement>('button:not(:disabled)')]
  const place = buttons.indexOf(event.target as HTMLButtonElement)
  const next = place < 0 ? null : nextPlace(event.key, place, buttons.length)
  if (next === null) return
  event.preventDefault()
  event.stopPropagation()
  buttons[next].focus()
}

/** Arrow keys go through the buttons of a list. */
export const vArrows: Directive<HTMLElement> = {
  mounted: (list) => list.addEventListener('keydown', move),
  unmounted: (list) => list.removeEventListener('keydown', move),
}
