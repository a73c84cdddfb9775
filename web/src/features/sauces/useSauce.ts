import { computed, ref, shallowRef, watch } from 'vue'
import { useDebounceFn, useIntervalFn, useStorage } from '@vueuse/core'
import {
  api,
  ask,
  type Analysis,
  type KeptSauce,
  type Problem,
  type SauceDraft,
} from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'

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
  const kept = shallowRef<KeptSauce[]>()
  const aside = shallowRef<{ id: number; title: string; why: string }[]>([])
  const more = ref('')
  const search = ref('')
  const elsewhere = ref(false) // it was changed in another place since it was taken
  const analysis = shallowRef<Analysis>()
  const problem = ref<Problem>()
  const said = ref('')
  const waiting = ref(false)
  const { known, load: loadKitchen } = useKitchenFigures()
  let latest = 0
  let chose = false // by the cook; a shelf that loads late may not put its first sauce over a new one

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

  function inKitchen() {
    const kitchen = known.value
    return kitchen ? { ...kitchen.figures, learnt: kitchen.learnt } : {}
  }

  /** Asks what the lines come to, and returns it even where a later question has overtaken this one on the page. */
  async function analyse(): Promise<Analysis | undefined> {
    if (!written.value.length) {
      analysis.value = problem.value = undefined
      return undefined
    }
    const turn = ++latest
    waiting.value = true
    const others = besideIt().map(({ document: { name, kind, lines, own, for_kg } }) => ({
      name,
      kind,
      lines,
      own,
      for_kg,
    }))
    const body = {
      ...recipe(),
      simmer: draft.value.simmer ?? null,
      meat_kg: draft.value.for_kg ?? null,
      beside: others,
      kitchen: inKitchen(),
    }
    const answer = await ask(() => api.POST('/api/v1/sauces/analyse', { body: body as never }))
    if (turn !== latest) return answer.data
    waiting.value = false
    problem.value = answer.problem
    if (answer.data) analysis.value = answer.data
    return answer.data
  }
  const soon = useDebounceFn(analyse, 180)
  watch([draft, beside], () => void soon(), { deep: true })

  async function open() {
    await loadKitchen()
    problem.value = await reload()
    const first = kept.value?.[0]
    if (!chose && !written.value.length && first) take(first)
    await analyse()
  }

  // A server that was away is asked again.
  useIntervalFn(() => {
    if (problem.value?.status === 0) void (kept.value ? analyse() : open())
  }, 15_000)

  function take(sauce: KeptSauce) {
    id.value = sauce.id
    version.value = sauce.version
    elsewhere.value = false
    draft.value = { ...EMPTY, ...structuredClone(clean(sauce.document)) }
    said.value = ''
  }

  function begin(from: Partial<SauceDraft> = {}) {
    chose = true
    id.value = version.value = null
    elsewhere.value = false
    analysis.value = undefined
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
    await reload()
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

  async function reload(after = ''): Promise<Problem | undefined> {
    const query = { search: search.value, after }
    const { data, problem: missing } = await ask(() =>
      api.GET('/api/v1/sauces', { params: { query } }),
    )
    if (!data) return missing
    kept.value = after ? [...(kept.value ?? []), ...data.sauces] : data.sauces
    aside.value = data.aside ?? []
    more.value = data.more ?? ''
    return undefined
  }
  watch(
    search,
    useDebounceFn(() => void reload(), 250),
  )

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
    await reload()
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
    waiting,
    changed,
    written,
    recipe,
    inKitchen,
    analyse,
    open,
    take,
    begin,
    keep,
    drop,
    aside,
    more,
    search,
    elsewhere,
    takeTheirs,
    keepMine,
    furtherOn: () => reload(more.value),
  }
}
