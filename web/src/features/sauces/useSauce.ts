import { computed, ref, watch } from 'vue'
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/vue-query'
import { refDebounced, useStorage } from '@vueuse/core'
import {
  api,
  ask,
  fetched,
  type Analysis,
  type KeptSauce,
  type Problem,
  type SauceDraft,
} from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useLast } from '@/shared/composables/useLast'

const SOON_MS = 180
const SEARCH_MS = 250
const AGAIN_MS = 15_000
const patience = {
  retry: false,
  // A server that was away is asked again.
  refetchInterval: ({ state }: { state: { error: unknown } }) =>
    (state.error as Problem | null)?.status === 0 ? AGAIN_MS : (false as const),
}
const EMPTY: SauceDraft = {
  name: 'New sauce',
  kind: 'glaze',
  lines: [''],
  own: [],
  moves: [],
  for_kg: null,
  simmer: null,
}

/** The recipe being written: kept in the browser at every stroke, analysed a moment later, and kept on the server. */
export function useSauce() {
  const json = {
    read: (t: string) => JSON.parse(t) as SauceDraft,
    write: (v: SauceDraft) => JSON.stringify(v),
  }
  const draft = useStorage<SauceDraft>('kettle-sauce', { ...EMPTY }, localStorage, {
    serializer: json,
  })
  const id = useStorage<number | null>('kettle-sauce-id', null, localStorage, {
    serializer: { read: Number, write: String },
  })
  const version = useStorage<number | null>('kettle-sauce-version', null, localStorage, {
    serializer: { read: Number, write: String },
  })
  // Numbers of the other kept sauces that go on the same meat.
  const beside = useStorage<number[]>('kettle-sauce-beside', [], localStorage, {
    serializer: { read: (t: string) => JSON.parse(t) as number[], write: JSON.stringify },
  })
  const search = ref('')
  const elsewhere = ref(false) // it was changed in another place since it was taken
  const refused = ref<Problem>() // what was wrong with the last thing that was asked for
  const said = ref('')
  const opened = ref(false)
  const { known, here, load: loadKitchen } = useKitchenFigures()
  let chose = false // by the cook; a shelf that loads late may not put its first sauce over a new one

  const wanted = refDebounced(search, SEARCH_MS)
  const shelf = useInfiniteQuery({
    queryKey: ['sauces', wanted],
    queryFn: ({ pageParam }) =>
      fetched(
        api.GET('/api/v1/sauces', {
          params: { query: { search: wanted.value, after: pageParam } },
        }),
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.more || undefined,
    placeholderData: keepPreviousData,
    ...patience,
  })
  const kept = computed(() => shelf.data.value?.pages.flatMap((page) => page.sauces))
  const aside = computed(() => shelf.data.value?.pages.flatMap((page) => page.aside ?? []) ?? [])

  const written = computed(() => draft.value.lines.filter((line) => line.trim()))
  const changed = computed(() => {
    const stored = kept.value?.find((s) => s.id === id.value)?.document
    return !stored || JSON.stringify(clean(draft.value)) !== JSON.stringify(clean(stored))
  })

  function clean(sauce: SauceDraft) {
    const { name, kind, lines, own, for_kg, simmer, moves } = sauce
    return {
      name,
      kind,
      lines: lines.filter((l) => l.trim()),
      own: own ?? [],
      for_kg: for_kg ?? null,
      simmer: simmer ?? null,
      moves: moves ?? [],
    }
  }

  /** The recipe as the stateless endpoints take it. */
  function recipe() {
    return {
      name: draft.value.name || 'sauce',
      kind: draft.value.kind,
      lines: written.value,
      own: draft.value.own ?? [],
    }
  }

  const besideIt = () =>
    (kept.value ?? []).filter((s) => beside.value.includes(s.id) && s.id !== id.value)

  const body = computed(() =>
    JSON.stringify({
      ...recipe(),
      simmer: draft.value.simmer ?? null,
      meat_kg: draft.value.for_kg ?? null,
      beside: besideIt().map(({ document: { name, kind, lines, own, for_kg } }) => ({
        name,
        kind,
        lines,
        own,
        for_kg,
      })),
    }),
  )
  const asked = refDebounced(body, SOON_MS)
  const query = useQuery<Analysis, Problem>({
    queryKey: ['analysis', here, asked],
    queryFn: ({ signal }) =>
      fetched(
        api.POST('/api/v1/sauces/analyse', { body: JSON.parse(asked.value) as never, signal }),
      ),
    enabled: computed(() => opened.value && written.value.length > 0 && asked.value === body.value),
    staleTime: Infinity,
    ...patience,
  })
  const last = useLast(query.data)
  // An emptied recipe, or another one, comes to nothing until it is read.
  const analysis = computed(() =>
    written.value.length ? (query.data.value ?? last.value) : undefined,
  )
  watch(id, () => (last.value = query.data.value))
  const problem = computed({
    get: () =>
      refused.value ??
      (shelf.error.value as Problem | null) ??
      (written.value.length ? query.error.value : null) ??
      undefined,
    set: (next) => (refused.value = next),
  })
  watch(asked, () => (refused.value = undefined))

  async function open() {
    await Promise.all([loadKitchen(), shelf.refetch({ cancelRefetch: false })])
    const first = kept.value?.[0]
    if (!chose && !written.value.length && first) take(first)
    opened.value = true
  }

  async function again() {
    await Promise.all([shelf.refetch(), written.value.length ? query.refetch() : undefined])
  }

  function take(sauce: KeptSauce) {
    id.value = sauce.id
    version.value = sauce.version
    elsewhere.value = false
    draft.value = {
      ...EMPTY,
      ...(JSON.parse(JSON.stringify(clean(sauce.document))) as SauceDraft),
    }
    said.value = ''
  }

  function begin(from: Partial<SauceDraft> = {}) {
    chose = true
    id.value = version.value = null
    elsewhere.value = false
    last.value = undefined
    draft.value = { ...EMPTY, ...from }
    said.value = ''
  }

  /** A simmer is about half of this kitchen's burner. */
  const burnerW = () =>
    Math.round(
      0.5 *
        (known.value?.appliances
          .find((a) => a.type === 'burner' && a.given.in_use)
          ?.figures.find((f) => f.name === 'power_w')?.value ?? 1800),
    )

  async function keep(): Promise<void> {
    const number = id.value
    const body = clean(draft.value) as SauceDraft
    const seen = version.value ? { 'If-Match': `"${version.value}"` } : {}
    const answer = number
      ? await ask(() =>
          api.PUT('/api/v1/sauces/{id}', {
            params: { path: { id: number }, header: seen },
            body,
          }),
        )
      : await ask(() => api.POST('/api/v1/sauces', { body }))
    if (number && answer.problem?.status === 404) {
      id.value = version.value = null
      return keep()
    }
    elsewhere.value = answer.problem?.status === 412
    problem.value = elsewhere.value ? undefined : answer.problem
    if (!answer.data) return
    id.value = answer.data.id
    version.value = answer.data.version
    said.value = `“${answer.data.document.name}” is kept.`
    await shelf.refetch()
  }

  /** Go on with the sauce as it was changed in another place. */
  async function takeTheirs() {
    const { data } = await ask(() =>
      api.GET('/api/v1/sauces/{id}', { params: { path: { id: id.value! } } }),
    )
    if (data) take(data)
  }

  /** Keep this one over it. */
  async function keepMine() {
    version.value = null
    await keep()
  }

  /** Deletes; where plans hold a copy the server refuses first, and the question is put to the cook. */
  async function drop(replace = false) {
    const number = id.value
    if (!number) return begin()
    const answer = await ask(() =>
      api.DELETE('/api/v1/sauces/{id}', { params: { path: { id: number }, query: { replace } } }),
    )
    problem.value = answer.problem
    if (answer.problem) return
    begin()
    said.value = 'Deleted.'
    await shelf.refetch()
  }

  return {
    burnerW,
    draft,
    id,
    kept,
    beside,
    analysis,
    problem,
    said,
    changed,
    written,
    recipe,
    open,
    again,
    take,
    begin,
    keep,
    drop,
    aside,
    more: shelf.hasNextPage,
    search,
    elsewhere,
    takeTheirs,
    keepMine,
    furtherOn: () => shelf.fetchNextPage(),
  }
}
