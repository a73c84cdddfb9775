/** Whether a key press belongs to a field and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  if (!target) return false
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
}

/** A key that is held down repeats; on a button each repeat would be one more tap. */
export function stopRepeats(event: KeyboardEvent) {
  const target = event.target as HTMLElement | null
  if (!event.repeat || ![' ', 'Enter'].includes(event.key)) return
  if (!target?.closest('button, a, summary, [role=button]')) return
  event.preventDefault()
  event.stopPropagation()
}
