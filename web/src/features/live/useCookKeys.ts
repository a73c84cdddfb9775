import type { Ref } from 'vue'
import { useEventListener } from '@vueuse/core'
import type { EventBody, Live } from '@/api/client'
import { isTyping } from '@/shared/composables/keys'

const SIGNS: Record<string, EventBody['sign']> = {
  n: 'nothing yet',
  b: 'bubbling',
  a: 'amber at the edges',
  d: 'dark',
}

/** A cook by keys: Space is the wide button. A key that is held is one gesture. */
export function useCookKeys(
  cook: Ref<Live | undefined>,
  told: (body: EventBody) => void,
  awake: () => boolean,
) {
  function bodyOf(key: string, now: Live): EventBody | undefined {
    const step = now.steps.find((s) => s.key === now.current)
    if (SIGNS[key]) return now.fire ? { kind: 'saw', sign: SIGNS[key] } : undefined
    if (key === 'u') return now.undoable ? { kind: 'undo' } : undefined
    if (!step || step.who === 'gate') return undefined
    if (key === ' ' && now.offer)
      return { kind: 'done', step: now.offer.step, ago_s: now.offer.ago_s }
    if (key === ' ' && step.key !== 'wait') return { kind: 'done', step: step.key }
    if (key === '2' && step.key !== 'wait') return { kind: 'done', step: step.key, ago_s: 120 }
    if (key === '+' && step.who === 'machine')
      return { kind: 'extend', step: step.key, seconds: 60 }
    return undefined
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement | null
    const onControl = event.key === ' ' && target?.closest('button, a, summary, [role=button]')
    if (isTyping(event) || onControl || event.ctrlKey || event.metaKey || event.altKey) return
    if (!cook.value || cook.value.ended_at || !awake()) return
    const body = bodyOf(event.key, cook.value)
    if (!body) return
    event.preventDefault()
    if (!event.repeat) told(body)
  })
}
