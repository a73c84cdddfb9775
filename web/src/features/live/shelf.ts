import { openDB, type IDBPDatabase } from 'idb'
import type { EventBody } from '@/api/client'

/** A step of a side: of which supper, and which line of it. */
export interface OfSide {
  supper: number
  line: string
}

/** A tap as it is kept until the server has it: its own number, its cook or side, and when it was
 * made. A side has no cook: 0. */
export interface Tap {
  id: string
  cook: number
  body: EventBody
  tappedAt: string
  side?: OfSide
}

/** A tap that the server refused for good; kept until somebody has read why. */
export interface Refusal {
  id: string
  cook: number
  why: string
  side?: OfSide
}

export interface Shelf {
  put(tap: Tap): Promise<void>
  taps(): Promise<Tap[]>
  drop(id: string): Promise<void>
  refuse(refusal: Refusal): Promise<void>
  refusals(): Promise<Refusal[]>
  forget(id: string): Promise<void>
}

const NAME = 'kettle-taps'

/** Taps in IndexedDB: all tabs share them, and a reload or a crash loses none. */
class KeptShelf implements Shelf {
  constructor(private readonly db: IDBPDatabase) {}

  async put(tap: Tap) {
    await this.db.add('taps', tap)
  }

  async taps() {
    const found = (await this.db.getAll('taps')) as Tap[]
    return found.filter((tap) => typeof tap?.id === 'string' && tap.body)
  }

  async drop(id: string) {
    const key = await this.db.getKeyFromIndex('taps', 'id', id)
    if (key !== undefined) await this.db.delete('taps', key)
  }

  async refuse(refusal: Refusal) {
    await this.db.put('refused', refusal)
  }

  async refusals() {
    return (await this.db.getAll('refused')) as Refusal[]
  }

  async forget(id: string) {
    await this.db.delete('refused', id)
  }
}

/** Taps in this tab alone, where the browser keeps nothing. */
export class TabShelf implements Shelf {
  private kept: Tap[] = []
  private told: Refusal[] = []

  async put(tap: Tap) {
    this.kept.push(tap)
  }

  async taps() {
    return [...this.kept]
  }

  async drop(id: string) {
    this.kept = this.kept.filter((tap) => tap.id !== id)
  }

  async refuse(refusal: Refusal) {
    this.told.push(refusal)
  }

  async refusals() {
    return [...this.told]
  }

  async forget(id: string) {
    this.told = this.told.filter((refusal) => refusal.id !== id)
  }
}

/** The shelf of this browser; a damaged or forbidden store never blanks the page. */
export async function openShelf(): Promise<Shelf> {
  try {
    const db = await openDB(NAME, 1, {
      upgrade(found) {
        const taps = found.createObjectStore('taps', { autoIncrement: true })
        taps.createIndex('id', 'id', { unique: true })
        found.createObjectStore('refused', { keyPath: 'id' })
      },
    })
    return new KeptShelf(db)
  } catch {
    return new TabShelf()
  }
}

/** Taps that an earlier version kept in another place, oldest first; the place is emptied. */
export function takeOldTaps(store: Storage, makeId: () => string): Tap[] {
  const found: Tap[] = []
  const keys = Object.keys(store).filter((key) => /^kettle-unsent-\d+$/.test(key))
  for (const key of keys) {
    const cook = Number(key.split('-').pop())
    try {
      const kept = JSON.parse(store.getItem(key) ?? '[]') as { body: EventBody; at: number }[]
      for (const { body, at } of kept)
        found.push({ id: makeId(), cook, body, tappedAt: new Date(at).toISOString() })
    } catch {
      // Damaged: nothing in it can be read.
    }
    store.removeItem(key)
  }
  return found
}
