import { QueryClient, QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { askPlansAgain } from './usePlans'

describe('asking for the plans again', () => {
  it('asks anew even while the first answer is on its way', async () => {
    const client = new QueryClient()
    const answers: ((titles: string[]) => void)[] = []
    const observer = new QueryObserver<string[]>(client, {
      queryKey: ['plans', ''],
      queryFn: () => new Promise((done) => answers.push(done)),
    })
    const stop = observer.subscribe(() => undefined)
    await vi.waitFor(() => expect(answers).toHaveLength(1))
    const asked = askPlansAgain(client)
    await vi.waitFor(() => expect(answers).toHaveLength(2))
    answers[0]!(['before the change'])
    answers[1]!(['after it'])
    await asked
    expect(observer.getCurrentResult().data).toEqual(['after it'])
    stop()
  })
})
