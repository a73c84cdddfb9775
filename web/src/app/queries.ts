import { QueryClient } from '@tanstack/vue-query'

/** What the server said, kept while it is on screen. The server is this kitchen's own, so that it is
 * asked whether or not the browser believes to be online. */
export function queries(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: { networkMode: 'always', retry: 1, staleTime: 2000, refetchOnWindowFocus: true },
      mutations: { networkMode: 'always' },
    },
  })
}
