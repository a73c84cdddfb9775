import type { Stage } from '@/api/client'

/** Places of the chain's links along a line, in pixels. */
export interface Link {
  stage: Stage
  x: number
  width: number
}

/** Serial links in order, as long as their likely minutes. */
export function links(stages: Stage[], width: number): Link[] {
  const serial = stages.filter((s) => s.serial)
  const total = serial.reduce((sum, s) => sum + s.band.likely_s, 0)
  let x = 0
  return serial.map((stage) => {
    const w = total > 0 ? (stage.band.likely_s / total) * width : 0
    const link = { stage, x, width: w }
    x += w
    return link
  })
}

/** Where a stage that runs beside the others stands on the same line. */
export function besideLink(stage: Stage, stages: Stage[], width: number): Link {
  const total = stages.filter((s) => s.serial).reduce((sum, s) => sum + s.band.likely_s, 0)
  const x = ((total - stage.before_serving.likely_s) / total) * width
  return { stage, x: Math.max(0, x), width: Math.min(width, (stage.band.likely_s / total) * width) }
}

/** What a link is, whatever stage it belongs to: "pot.hold" is a hold. */
export function rootOf(key: string): string {
  return key.split('.').pop()!
}

/** How a link is filled: its timer is set, hands work, or it is a hidden wait. */
export function fillOf(stage: Stage): 'fire' | 'timer' | 'hands' | 'wait' {
  if (stage.who === 'fire') return 'fire'
  if (!stage.hidden) return 'timer'
  return stage.who === 'machine' ? 'wait' : 'hands'
}
