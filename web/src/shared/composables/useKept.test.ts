import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Chain } from '@/api/client'
import { useKept } from './useKept'

const asked: { method: string; url: string; match: string | null; name: string }[] = []
const answers: ((status: number, body: unknown) => void)[] = []

/** A kettle that answers when the test says so. */
function quietServer() {
  vi.stubGlobal('fetch', async (request: Request) => {
    const body = (request.method === 'GET' ? {} : await request.json()) as { dish?: Chain }
    asked.push({
      method: request.method,
      url: new URL(request.url).pathname,
      match: request.headers.get('If-Match'),
      name: body.dish?.name ?? '',
    })
    return new Promise<Response>((done) =>
      answers.push((status, told) =>
        done(
          new Response(JSON.stringify(told), {
            status,
            headers: { 'Content-Type': 'application/json' },
          }),
        ),
      ),
    )
  })
}

function editor() {
  const held = {
    sitting: 0,
    planId: null as number | null,
    planVersion: null as number | null,
    chain: { name: 'one' } as Chain | null,
    begin(document: Chain, id: number | null = null, version: number | null = null) {
      held.sitting += 1
      held.chain = document
      held.planId = id
      held.planVersion = version
    },
  }
  return { held, kept: useKept(held, () => held.chain) }
}

const arrived = (count: number) => vi.waitFor(() => expect(asked).toHaveLength(count))

describe('keeping what is edited', () => {
  beforeEach(() => {
    asked.length = answers.length = 0
    quietServer()
  })

  it('does not open again what was left for the shelf while it was on its way', async () => {
    const { held, kept } = editor()
    const opening = kept.open(1)
    await arrived(1)
    held.sitting += 1
    held.chain = null
    answers[0]!(200, { id: 1, version: 1, dish: { name: 'kept' } })
    await opening
    expect(held.chain).toBeNull()
    expect(held.planId).toBeNull()
  })

  it('makes one plan, however slow the first answer is', async () => {
    const { held, kept } = editor()
    const first = kept.keep()
    await arrived(1)
    held.chain = { name: 'two' } as Chain
    const second = kept.keep()
    answers[0]!(201, { id: 5, version: 1 })
    expect(await first).toBe(true)
    await arrived(2)
    answers[1]!(200, { id: 5, version: 2 })
    expect(await second).toBe(true)
    expect(asked.map((one) => [one.method, one.url, one.match, one.name])).toEqual([
      ['POST', '/api/v1/plans', null, 'one'],
      ['PUT', '/api/v1/plans/5', '"1"', 'two'],
    ])
    expect([held.planId, held.planVersion]).toEqual([5, 2])
  })

  it('does not give the number of what was left to what came after', async () => {
    const { held, kept } = editor()
    const saved = kept.keep()
    await arrived(1)
    held.begin({ name: 'another' } as Chain)
    answers[0]!(201, { id: 5, version: 1 })
    expect(await saved).toBe(true)
    expect([held.planId, held.planVersion]).toEqual([null, null])
  })

  it('saves what is left behind at once, to its own plan', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'last stroke' } as Chain, 5, 3)
    const saved = kept.keep()
    held.begin({ name: 'another' } as Chain)
    held.chain = null
    await arrived(1)
    expect(asked[0]).toMatchObject({ url: '/api/v1/plans/5', match: '"3"', name: 'last stroke' })
    answers[0]!(200, { id: 5, version: 4 })
    expect(await saved).toBe(true)
    expect([held.planId, held.planVersion]).toEqual([null, null])
  })

  it('writes nothing over a change from elsewhere until it is told to', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'mine' } as Chain, 5, 1)
    const saved = kept.keep()
    await arrived(1)
    answers[0]!(412, { status: 412, title: 'Changed', detail: '', errors: [] })
    expect(await saved).toBe(false)
    expect(kept.changed.value).toBe(true)
    expect(await kept.keep()).toBe(false)
    expect(asked).toHaveLength(1)
    const mine = kept.keepMine()
    await arrived(2)
    expect(asked[1]!.match).toBeNull()
    answers[1]!(200, { id: 5, version: 8 })
    await mine
    expect(held.planVersion).toBe(8)
  })

  it('goes on from page to page: the second page knows what the first one is saving', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'first page' } as Chain, 5, 1)
    const first = kept.keep()
    await arrived(1)
    const other = useKept(held, () => held.chain)
    const opened = other.open(5)
    held.chain = { name: 'second page' } as Chain
    const second = other.keep()
    answers[0]!(200, { id: 5, version: 2 })
    await first
    await arrived(3)
    const put = asked.findIndex((one) => one.name === 'second page')
    expect(asked[put]!.match).toBe('"2"')
    answers[put]!(200, { id: 5, version: 3 })
    await second
    const get = asked.findIndex((one) => one.method === 'GET')
    answers[get]!(200, { id: 5, version: 3, dish: { format: 'kettle.dish/2' } })
    await opened
    expect(other.changed.value).toBe(false)
  })

  it('tells an older copy of a plan, and keeps it until it is told which one to take', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'mine' } as Chain, 5, 1)
    const opened = kept.open(5)
    await arrived(1)
    answers[0]!(200, { id: 5, version: 4, dish: { format: 'kettle.dish/2', name: 'theirs' } })
    await opened
    expect(kept.changed.value).toBe(true)
    expect(held.chain!.name).toBe('mine')
  })

  it('says why a change is only here, until it is kept', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'mine' } as Chain, 5, 1)
    const failed = kept.keep()
    await arrived(1)
    answers[0]!(422, { status: 422, title: '', detail: 'no such sauce', errors: [] })
    expect(await failed).toBe(false)
    expect(kept.unkept.value!.detail).toBe('no such sauce')
    const again = kept.keep()
    await arrived(2)
    answers[1]!(200, { id: 5, version: 2 })
    expect(await again).toBe(true)
    expect(kept.unkept.value).toBeUndefined()
  })

  it('sends what a server that was away did not take, by itself', async () => {
    vi.useFakeTimers()
    try {
      const { held, kept } = editor()
      held.begin({ name: 'mine' } as Chain, 5, 1)
      vi.stubGlobal('fetch', () => Promise.reject(new TypeError('away')))
      expect(await kept.keep()).toBe(false)
      expect(kept.unkept.value!.status).toBe(0)
      quietServer()
      await vi.advanceTimersByTimeAsync(15_000)
      expect(asked.map((one) => [one.method, one.match])).toEqual([['PUT', '"1"']])
      answers[0]!(200, { id: 5, version: 2 })
      await vi.advanceTimersByTimeAsync(15_000)
      expect(kept.unkept.value).toBeUndefined()
      expect(asked).toHaveLength(1)
    } finally {
      vi.useRealTimers()
    }
  })

  it('makes a plan that is gone anew', async () => {
    const { held, kept } = editor()
    held.begin({ name: 'mine' } as Chain, 5, 1)
    const saved = kept.keep()
    await arrived(1)
    answers[0]!(404, { status: 404, title: 'Not there', detail: '', errors: [] })
    await arrived(2)
    answers[1]!(201, { id: 6, version: 1 })
    expect(await saved).toBe(true)
    expect(held.planId).toBe(6)
  })
})
