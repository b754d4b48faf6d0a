import type { CableTestSaid, SnagSaid, Tick } from '@/api/types'
import { itemNames } from '@/document/keeper'

/** A photograph that waits: its picture lies in the browser's cache under the same key. */
export interface Shot {
  key: string
  of: 'step' | 'snag'
  about: string
  by: string
  at: string
}

export interface Rows {
  ticks: Tick
  snags: SnagSaid
  tests: CableTestSaid & { key: string }
  shots: Shot
}
export type Kind = keyof Rows

/**
 * What was said on this device and is not known to be at the server: in which project, in which order, what
 * it is about in words, and what the server said against it. What was refused waits for a person.
 */
export interface Entry<K extends Kind = Kind> {
  kind: K
  project: string
  site: string
  title: string
  order: number
  row: Rows[K]
  why: string
  refused: boolean
}

const PREFIX = 'heathrise-out'
const KINDS: Kind[] = ['ticks', 'snags', 'tests', 'shots']
/** Lists of one item a project, as they were kept before each row had its own. */
const LISTS = /^heathrise-(ticks|snags)-(p-.+)$/

const nameOf = (e: Entry) => [PREFIX, e.kind, e.project, e.row.key].join(':')

/** Everything that waits, in the order in which it was said. */
export function entriesIn(storage: Storage): Entry[] {
  adopt(storage)
  const found: Entry[] = []
  for (const name of itemNames(storage)) {
    if (!name.startsWith(`${PREFIX}:`)) continue
    const entry = parsed<Entry>(storage.getItem(name))
    if (entry?.row && KINDS.includes(entry.kind)) found.push(entry)
  }
  return found.sort((a, b) => a.order - b.order || a.row.key.localeCompare(b.row.key))
}

/** Keep an entry; each has an item of its own, so that no window writes over what another keeps. */
export function keepIn(storage: Storage, entry: Entry): void {
  storage.setItem(nameOf(entry), JSON.stringify(entry))
}

export function dropFrom(storage: Storage, entry: Entry): void {
  storage.removeItem(nameOf(entry))
}

/** The place of what is said next. */
export function nextOrder(entries: readonly Entry[]): number {
  return Math.max(0, ...entries.map((e) => e.order)) + 1
}

function adopt(storage: Storage): void {
  for (const name of itemNames(storage)) {
    const [, kind, project] = LISTS.exec(name) ?? []
    if (!kind || !project) continue
    const rows = parsed<Rows['ticks' | 'snags'][]>(storage.getItem(name))
    if (!Array.isArray(rows)) continue
    rows.forEach((row, order) => keepIn(storage, { kind: kind as Kind, project, site: '', title: '', order, row, why: '', refused: false }))
    storage.removeItem(name)
  }
}

function parsed<T>(text: string | null): T | null {
  try {
    return JSON.parse(text ?? 'null') as T | null
  } catch {
    return null
  }
}
