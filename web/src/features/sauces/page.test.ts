import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  analysed,
  plan,
  keptSauce,
  kitchen,
  pot,
  serve,
  show,
  type Answer,
  part,
} from '@/__tests__/kitchen'
import { useDraft } from '@/features/plan'
import BottlePanel from './BottlePanel.vue'
import LedgerPanel from './LedgerPanel.vue'
import SaucesPage from './SaucesPage.vue'
import ScalePanel from './ScalePanel.vue'
import VariantPanel from './VariantPanel.vue'

const find = (name: string) => `[data-test='${name}']`
const analyse = (body: unknown): Answer => [200, analysed((body as { lines: string[] }).lines)]
const server = (more = {}) =>
  serve({
    'GET /kitchen': [200, kitchen],
    'GET /sauces': [200, { sauces: [keptSauce(4, 'Plum and tea')] }],
    'POST /sauces/analyse': analyse,
    ...more,
  })

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval'] })
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = async () => {
  await vi.advanceTimersByTimeAsync(400)
  await flushPromises()
}

describe('the sauces', () => {
  it('opens the last one, weighs it in this kitchen, and weighs it anew at every change', async () => {
    const asked = server()
    const { page } = await show(SaucesPage, '/sauces')
    await settle()
    expect((page.get(find('sauce-name')).element as HTMLInputElement).value).toBe('Plum and tea')
    expect(page.text()).toContain('120 g, about 96 ml')
    expect(page.text()).toContain('Plum jam browns first.')
    expect(page.text()).toContain('edges burn 1:05 later')
    await page.get(find('line-1')).setValue('2 tbsp gl?op')
    await settle()
    const last = asked.filter((a) => a.path === '/sauces/analyse').at(-1)!
    expect(last.body).toMatchObject({ lines: ['180 g plum jam', '2 tbsp gl?op'] })
    expect(last.headers.get('Kettle-Kitchen')).toBe('kept')
    expect(page.get('.note').text()).toContain('Not counted')
    expect(page.text()).toContain('1 line is not counted')
    expect(page.text()).toContain('60 g, about 48 ml')
    page.unmount()
  })

  it('leaves a new sauce new where the shelf comes late', async () => {
    server()
    const answers = globalThis.fetch
    let arrive = () => {}
    const late = new Promise<void>((resolve) => {
      arrive = resolve
    })
    vi.stubGlobal('fetch', async (input: Request) => {
      if (input.method === 'GET' && input.url.endsWith('/sauces')) await late
      return answers(input)
    })
    const { page } = await show(SaucesPage, '/sauces')
    await page.get(find('new-sauce')).trigger('click')
    arrive()
    await settle()
    expect((page.get(find('sauce-name')).element as HTMLInputElement).value).toBe('New sauce')
    expect(page.text()).toContain('Plum and tea')
    page.unmount()
  })

  it('counts the salt of what else goes on the meat', async () => {
    const rub = keptSauce(7, 'Jetty rub', { kind: 'rub', lines: ['2 tbsp salt'], for_kg: 1.5 })
    const salt = {
      all_share: 0.02,
      likely_share: 0.014,
      usual_low: 0.01,
      usual_high: 0.018,
      verdict: 'as usual',
      by: [
        { name: 'Plum and tea', likely_share: 0.003 },
        { name: 'Jetty rub', likely_share: 0.011 },
      ],
    }
    const asked = server({
      'GET /sauces': [200, { sauces: [keptSauce(4, 'Plum and tea', { for_kg: 1.6 }), rub] }],
      'POST /sauces/analyse': (body: unknown): Answer => [
        200,
        analysed(
          (body as { lines: string[] }).lines,
          (body as { beside: [] }).beside.length ? { salt } : {},
        ),
      ],
    })
    const { page } = await show(SaucesPage, '/sauces')
    await settle()
    await page.get(find('beside-7')).trigger('click')
    await settle()
    expect(asked.at(-1)!.body).toMatchObject({
      meat_kg: 1.6,
      beside: [{ name: 'Jetty rub', kind: 'rub', for_kg: 1.5 }],
    })
    expect(page.text()).toContain('0.3 % from Plum and tea, 1.1 % from Jetty rub')
    page.unmount()
  })

  it('keeps a new one once and changes it afterwards, and begins again where it was deleted elsewhere', async () => {
    const put = vi.fn((body: unknown): Answer =>
      put.mock.calls.length > 1
        ? [404, { title: 'x', status: 404, detail: 'gone', errors: [] }]
        : [200, { ...keptSauce(9, 'Mine'), document: body }],
    )
    const asked = server({
      'POST /sauces': (body: unknown): Answer => [201, { ...keptSauce(9, 'Mine'), document: body }],
      'PUT /sauces/9': put,
    })
    const { page } = await show(SaucesPage, '/sauces')
    await page.get(find('new-sauce')).trigger('click')
    await page.get(find('sauce-name')).setValue('Mine')
    await page.get(find('line-0')).setValue('1 cup ketchup')
    await settle()
    for (let i = 0; i < 3; i++) {
      await page.get(find('sauce-name')).setValue(`Mine ${i}`)
      await page.get(find('keep')).trigger('click')
      await settle()
    }
    expect(
      asked
        .filter((a) => ['POST', 'PUT'].includes(a.method) && /^\/sauces(\/9)?$/.test(a.path))
        .map((a) => a.method),
    ).toEqual(['POST', 'PUT', 'PUT', 'POST'])
    expect(page.text()).toContain('“Mine 2” is kept.')
    page.unmount()
  })

  it('asks before a plan loses its recipe, and lets the plan keep its copy', async () => {
    const refuse: Answer = [
      409,
      {
        title: 'In use',
        status: 409,
        detail: '“Plum and tea” is in the plan short ribs',
        errors: [],
      },
    ]
    const drop = vi.fn((): Answer => (drop.mock.calls.length === 1 ? refuse : [200, {}]))
    const asked = server({ 'DELETE /sauces/4': drop })
    const { page } = await show(SaucesPage, '/sauces')
    await settle()
    await page.get(find('drop')).trigger('click')
    await settle()
    expect(page.get('.refused').text()).toContain('is in the plan short ribs')
    await page.get(find('drop-anyway')).trigger('click')
    await settle()
    expect(asked.filter((a) => a.method === 'DELETE')).toHaveLength(2)
    expect(page.find('.refused').exists()).toBe(false)
    expect(page.text()).toContain('An empty jar.')
    page.unmount()
  })

  it('keeps what is written while the server is away, and tells it', async () => {
    const asked = serve({
      'GET /kitchen': 'away',
      'GET /sauces': 'away',
      'POST /sauces/analyse': 'away',
    })
    localStorage.setItem(
      'kettle-sauce',
      JSON.stringify({
        name: 'Mine',
        kind: 'glaze',
        lines: ['1 cup ketchup'],
        own: [],
        moves: [],
        for_kg: null,
        simmer: null,
      }),
    )
    const { page } = await show(SaucesPage, '/sauces')
    await page.get(find('line-0')).setValue('2 cups ketchup')
    await settle()
    expect(page.text()).toContain('does not answer')
    expect(localStorage.getItem('kettle-sauce')).toContain('2 cups ketchup')
    server()
    await vi.advanceTimersByTimeAsync(15_100)
    await settle()
    expect(page.text()).not.toContain('does not answer')
    expect(page.text()).toContain('60 g, about 48 ml')
    expect(asked.length).toBeGreaterThan(1)
    page.unmount()
  })

  it('simmers on half of this kitchen’s burner, or as it is told', async () => {
    const burner = {
      ...pot,
      type: 'burner',
      figures: [
        {
          name: 'power_w',
          label: 'heats with',
          value: 2200,
          unit: 'W',
          assumed: false,
          figure: null,
        },
      ],
    }
    const asked = server({ 'GET /kitchen': [200, { ...kitchen, appliances: [burner] }] })
    const { page } = await show(SaucesPage, '/sauces')
    await settle()
    await page.get('[aria-label="more, Simmered"]').trigger('click')
    await settle()
    expect(asked.at(-1)!.body).toMatchObject({ simmer: { minutes: 1, power_w: 1100 } })
    await page.get('[aria-label="less, On a burner of"]').trigger('click')
    await settle()
    expect(asked.at(-1)!.body).toMatchObject({ simmer: { minutes: 1, power_w: 1000 } })
    await page.get('[aria-label="less, Simmered"]').trigger('click')
    await settle()
    expect(JSON.parse(localStorage.getItem('kettle-sauce')!)).toMatchObject({ simmer: null })
    page.unmount()
  })

  it('goes onto the dish as the server makes it, with what its portion touched', async () => {
    server({
      'POST /sauces/on-dish': (body: unknown) => [
        200,
        {
          ...(body as object),
          lines: [{ ingredient: 'plum-jam', mass_g: 120 }],
          contact: 'boiled',
        },
      ],
    })
    const { page, router } = await show(SaucesPage, '/sauces')
    const draft = useDraft(page.vm.$pinia as never)
    draft.begin(plan())
    await settle()
    await page.get(find('use-on-dish')).trigger('click')
    await flushPromises()
    expect(draft.chain!.layers![0]!.sauce).toMatchObject({
      name: 'Plum and tea',
      lines: [{ ingredient: 'plum-jam', mass_g: 120 }],
      sauce_id: 4,
      contact: 'boiled',
    })
    expect(router.currentRoute.value.path).toBe('/plan')
    page.unmount()
  })
})

describe('what is done with a sauce', () => {
  it('stops a portion that touched raw food until it is boiled, and only then keeps the split', async () => {
    const asked = serve({
      'POST /sauces/ledger': (body) => {
        const kinds = (body as { moves: { kind: string; portion: string }[] }).moves.map(
          (m) => m.kind,
        )
        const stop = kinds.includes('touch') && kinds.includes('serve') && !kinds.includes('boil')
        return [
          200,
          {
            portions: [],
            flows: [],
            served_g: 0,
            guidance: 'usual',
            stops: stop
              ? [{ place: 2, portion: 'coats', why: 'coats touched raw food', boil_min: 3.6 }]
              : [],
          },
        ]
      },
    })
    const page = part(LedgerPanel, { props: { batchG: 300, moves: [], kind: 'glaze' } })
    await settle()
    expect(page.emitted('change')).toBeUndefined()
    const named = page.get('[aria-label="Name of the portion"]')
    const first = (named.element as HTMLInputElement).value
    await named.setValue('brush')
    expect(page.get('legend').text()).toBe('Portion brush')
    await named.setValue(first)
    await page.getComponent(find('use-0')).setValue('raw')
    await page.get(find('later-0') + ' input').setValue(true)
    await settle()
    expect(page.get('.stop').text()).toContain('coats touched raw food')
    await page.get(find('boil-it')).trigger('click')
    await settle()
    expect(page.find('.stop').exists()).toBe(false)
    expect(
      (asked.at(-1)!.body as { moves: { kind: string }[] }).moves.map((m) => m.kind),
    ).toContain('boil')
    expect(page.emitted('change')).toBeTruthy()
  })

  it('scales by what decides, shows each law, and writes it so', async () => {
    const scaled = {
      factor: 2,
      total_g: 240,
      gap: '',
      lines: [
        {
          text: '120 g honey',
          name: 'honey',
          spoons: '6 tbsp',
          law: 'straight',
          from_g: 60,
          to_g: 120,
        },
        {
          text: '3 g clove',
          name: 'clove',
          spoons: '',
          law: 'pungent: rises more slowly',
          from_g: 2,
          to_g: 3,
        },
      ],
    }
    const asked = serve({ 'POST /scale': [200, scaled] })
    const page = part(ScalePanel, {
      props: {
        recipe: { name: 's', kind: 'glaze', lines: ['60 g honey', '2 g clove'], own: [] } as never,
        forKg: 1.6,
        lines: ['60 g honey', '2 g clove'],
      },
    })
    await page.get('form').trigger('submit')
    await settle()
    expect(asked[0]!.body).toMatchObject({
      by: 'meat',
      for_kg: 1.6,
      lines: ['60 g honey', '2 g clove'],
    })
    expect(page.text()).toContain('2.00 times')
    expect(page.findAll('em').map((e) => e.text())).toEqual(['pungent: rises more slowly'])
    await page.get(find('use-scaled')).trigger('click')
    expect(page.emitted('use')![0]).toEqual([['120 g honey', '3 g clove']])
  })

  it('offers a variant without each allergen that is in it, and says what stays', async () => {
    const variant = {
      variant: 'without soy',
      changes: ['soy sauce: salt and water instead'],
      stays: ['mustard stays'],
      lines: ['1 tsp salt'],
      analysis: analysed(['1 tsp salt']),
    }
    const asked = serve({ 'POST /sauces/variants': [200, variant] })
    const page = part(VariantPanel, { props: { body: { name: 's' }, analysis: analysed(['x']) } })
    expect(page.findAll('.names button').map((b) => b.text())).toEqual([
      'sugar-free',
      'less salt',
      'milder',
      'without soy',
    ])
    await page.get(find('variant-without soy')).trigger('click')
    await settle()
    expect(asked[0]!.body).toMatchObject({ variant: 'without soy' })
    expect(page.get('.stays').text()).toBe('mustard stays')
    await page.get(find('use-variant')).trigger('click')
    expect(page.emitted('use')![0]).toEqual([['1 tsp salt']])
  })

  it('reads a label in its order, and tells a label that cannot be', async () => {
    const refuse: Answer = [
      422,
      {
        title: 'This cannot be used',
        status: 422,
        detail: '',
        errors: [{ field: 'sugars_g', given: '50', accepted: 'at most the serving of 30 g' }],
      },
    ]
    const item = {
      key: 'harbour',
      name: 'Harbour',
      fractions: { water: 1 },
      density_kg_l: 1.1,
      group: 'sauce',
      allergens: [],
    }
    const label = vi.fn((): Answer =>
      label.mock.calls.length === 1
        ? refuse
        : [200, { ingredient: item, says: 'Harbour is a third sugar.' }],
    )
    const asked = serve({ 'POST /ingredients/label': label })
    const page = part(BottlePanel, { props: { own: [] } })
    expect(page.find(find('hand-name')).exists()).toBe(false)
    await page.get(find('bottle-name')).setValue('Harbour')
    await page.findAll('form input').at(-1)!.setValue('tomato paste, brown sugar; vinegar')
    await page.get('form').trigger('submit')
    await settle()
    expect(page.text()).toContain('at most the serving of 30 g')
    await page.get('form').trigger('submit')
    await settle()
    expect(asked[1]!.body).toMatchObject({
      name: 'Harbour',
      order: ['tomato paste', 'brown sugar', 'vinegar'],
    })
    expect(page.emitted('add')![0]).toEqual([item])
    await page.findAll('input[type="radio"]')[1]!.setValue()
    await page.get(find('hand-name')).setValue('Jelly')
    await page.get('form').trigger('submit')
    expect(page.emitted('add')![1]![0]).toMatchObject({
      key: 'jelly',
      fractions: { water: 0.6, other: 0.4 },
    })
  })
})
