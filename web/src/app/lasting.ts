import type { QueryClient } from '@tanstack/vue-query'
import { persistQueryClient } from '@tanstack/query-persist-client-core'
import { createSyncStoragePersister } from '@tanstack/query-sync-storage-persister'

declare const __API__: string

const LONGEST_MS = 12 * 3600 * 1000 // a cook is over by then
/** What the Stove draws from; everything else is asked for. */
const LASTING = new Set(['live', 'glaze', 'cook'])

/** The last state of what is on the stove outlives the page, so that it opens while the server is away. */
export function keepLast(queryClient: QueryClient): void {
  const persister = createSyncStoragePersister({ storage: localStorage, key: 'kettle-last' })
  persistQueryClient({
    queryClient,
    persister,
    maxAge: LONGEST_MS,
    buster: __API__,
    dehydrateOptions: {
      shouldDehydrateQuery: ({ queryKey, state }) =>
        state.status === 'success' &&
        LASTING.has(String(queryKey[0])) &&
        (queryKey[0] !== 'cook' || queryKey[2] === 'live'),
    },
  })
}
