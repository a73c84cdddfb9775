import { api, ask, type Chain, type Problem } from '@/api/client'

const MOST_BYTES = 1_000_000

/** A name that any disk takes. */
export function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
  return `${plain || 'chain'}${ending}`
}

/** Hand some text to the browser as a file. */
export function download(name: string, text: string, type: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** The chain without the numbers of this kitchen's kept sauces: its copies stand for themselves. */
export function portable(chain: Chain): Chain {
  const layers = chain.layers?.map((layer) =>
    layer.sauce && typeof layer.sauce === 'object'
      ? { ...layer, sauce: { ...layer.sauce, sauce_id: null } }
      : layer,
  )
  return layers ? { ...chain, layers } : chain
}

/** The chain as a file to share. */
export function saveFile(chain: Chain) {
  const text = JSON.stringify(portable(chain), null, 2)
  download(fileName(chain.name ?? '', '.kettle.json'), text, 'application/json')
}

function refusal(detail: string): { problem: Problem; data?: undefined } {
  return {
    problem: { type: 'about:blank', title: 'This is no cook', status: 422, detail, errors: [] },
  }
}

/** A file kept as a plan; a problem where it holds none. */
export async function readFile(file: File) {
  if (file.size > MOST_BYTES) return refusal(`${file.name} is too large to be one.`)
  let dish: Chain
  try {
    dish = JSON.parse(await file.text()) as Chain
  } catch {
    return refusal(`${file.name} holds no JSON.`)
  }
  if (dish?.format !== 'kettle.dish/2')
    return refusal(`${file.name} holds no chain (kettle.dish/2).`)
  const layers = Array.isArray(dish.layers) ? portable(dish).layers : dish.layers
  return ask(() => api.POST('/api/v1/plans', { body: { dish: { ...dish, layers } } }))
}
