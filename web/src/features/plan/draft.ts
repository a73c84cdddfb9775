import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useStorage } from '@vueuse/core'
import { applyPatch, type Operation } from 'rfc6902'
import type { Chain, ChainStage } from '@/api/client'
import { layerOf, withoutLeft } from './layers'
import { find, freshId } from './stages'

const json = {
  read: (text: string) => JSON.parse(text) as Chain | null,
  write: (value: Chain | null) => JSON.stringify(value),
}
const number = { read: (text: string) => Number(text) || null, write: String }
const MOST_STEPS_BACK = 50
const copy = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T

/** The chain being planned, with what was changed before, to be taken back. */
export const useDraft = defineStore('chain', () => {
  const chain = useStorage<Chain | null>('kettle-chain', null, localStorage, { serializer: json })
  const planId = useStorage<number | null>('kettle-chain-plan', null, localStorage, {
    serializer: number,
  })
  const planVersion = useStorage<number | null>('kettle-chain-version', null, localStorage, {
    serializer: number,
  })
  const sitting = ref(0)
  const before = ref<Chain[]>([])
  const after = ref<Chain[]>([])

  /** What was left for the shelf: it outlives the page, so that nothing is lost. */
  const left = useStorage<Chain | null>('kettle-chain-left', null, localStorage, {
    serializer: json,
  })

  /** Begin anew with a chain, and the plan that it is kept as. */
  function begin(next: Chain, id: number | null = null, version: number | null = null) {
    sitting.value += 1
    before.value = []
    after.value = []
    planId.value = id
    planVersion.value = version
    chain.value = copy(next)
  }

  /** Back to the shelf, where it can be taken up again. */
  function leave() {
    sitting.value += 1
    left.value = chain.value
    planId.value = planVersion.value = null
    chain.value = null
  }

  function become(next: Chain) {
    if (chain.value) before.value = [...before.value, copy(chain.value)].slice(-MOST_STEPS_BACK)
    after.value = []
    chain.value = next
  }

  function edit(change: (next: Chain) => void) {
    if (!chain.value) return
    const next = copy(chain.value)
    change(next)
    if (JSON.stringify(next) !== JSON.stringify(chain.value)) become(next)
  }

  function replaceStage(id: string, stage: ChainStage) {
    edit((next) => {
      const at = find(next, id)
      if (at) at.list[at.place] = stage
    })
  }

  function takeOut(id: string) {
    edit((next) => {
      const at = find(next, id)
      at?.list.splice(at.place, 1)
      withoutLeft(chain.value!, next)
    })
  }

  /** Put a stage after another, at the very start after ''. Words in its fields stand for what
   * only the chain knows: `$stage` for the one before it, `$sauce` for the layer that is in use
   * there, else for a new one of the sauce that is offered. The new stage's id.
   */
  function putAfter(id: string, stage: Record<string, unknown>, layer = '', sauce?: string) {
    let put = ''
    edit((next) => {
      const at = id ? find(next, id) : { list: next.stages, place: -1 }
      if (!at) return
      put = freshId(next, stage.kind as string)
      const named: Record<string, unknown> = { ...stage, id: put }
      if (named.layer === '$sauce') named.layer = layer || layerOf(next, sauce as never)
      if (named.ready_for === '$stage') named.ready_for = id || next.stages[0]!.id
      at.list.splice(at.place + 1, 0, named as unknown as ChainStage)
    })
    return put
  }

  /** A stage one place earlier (-1) or later (1) in its list. */
  function move(id: string, by: number) {
    edit((next) => {
      const at = find(next, id)
      if (!at || !at.list[at.place + by]) return
      const [stage] = at.list.splice(at.place, 1)
      at.list.splice(at.place + by, 0, stage!)
    })
  }

  /** A stage to the place of another, within the list that both stand in. */
  function moveTo(id: string, other: string) {
    edit((next) => {
      const [from, to] = [find(next, id), find(next, other)]
      if (!from || !to || from.list !== to.list) return
      const [stage] = from.list.splice(from.place, 1)
      from.list.splice(to.place, 0, stage!)
    })
  }

  /** A repair is a JSON Patch. */
  function patch(operations: Record<string, unknown>[]) {
    edit((next) => void applyPatch(next, operations as unknown as Operation[]))
  }

  function undo() {
    const last = before.value.pop()
    if (!last || !chain.value) return
    after.value = [...after.value, copy(chain.value)]
    chain.value = last
  }

  function redo() {
    const last = after.value.pop()
    if (!last || !chain.value) return
    before.value = [...before.value, copy(chain.value)]
    chain.value = last
  }

  return {
    chain,
    sitting,
    planId,
    planVersion,
    left,
    begin,
    leave,
    edit,
    become,
    replaceStage,
    takeOut,
    putAfter,
    move,
    moveTo,
    patch,
    undo,
    redo,
    canUndo: computed(() => before.value.length > 0),
    canRedo: computed(() => after.value.length > 0),
  }
})
