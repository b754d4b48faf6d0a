import type { Change } from '@/api/types'

/** One edit: what it is called and what it changes. */
export interface Batch {
  label: string
  changes: Change[]
  /** The edit that a step takes back. */
  edit?: string
}

/** An edit that is not yet saved, with the steps as they were before it in the window that made it. */
export interface Pending extends Batch {
  id: string
  before?: { undo: readonly Batch[]; redo: readonly Batch[] }
}

/** What can be undone and redone, and the revision it was kept at. */
export interface Steps {
  revision: number
  undo: Batch[]
  redo: Batch[]
}

/** An edit that the server would not have, and why: kept until a person makes it anew or throws it away. */
export interface Refused extends Batch {
  id: string
  why: string
}

const MOST_STEPS = 200

/** Keeps edits that are not yet saved in the browser, so that closing it loses nothing, and the steps back
 * for as long as its tab lives. */
export class Keeper {
  private readonly key: string
  private readonly refusedKey: string
  private readonly stepsKey: string
  /** Ids of the edits that this window has held. */
  private readonly known = new Set<string>()

  constructor(projectId: string) {
    this.key = `heathrise-pending-${projectId}`
    this.refusedKey = `heathrise-refused-${projectId}:`
    this.stepsKey = `heathrise-steps-${projectId}`
  }

  load(): Pending[] {
    const kept = this.stored()
    for (const batch of kept) this.known.add(batch.id)
    return kept
  }

  /** Keep what this window has pending, beside what another window of the project keeps. */
  save(mine: Pending[]): void {
    for (const batch of mine) this.known.add(batch.id)
    const plain = mine.map(({ id, label, changes }) => ({ id, label, changes }))
    this.store(this.key, [...this.stored().filter((b) => !this.known.has(b.id)), ...plain])
  }

  /** Let an edit go that is saved, also when another project is open by now. */
  forget(id: string): void {
    this.store(this.key, this.stored().filter((b) => b.id !== id))
  }

  /** Edits that were refused, in whichever window; each is an item of its own. */
  refused(): Refused[] {
    return itemNames(localStorage).filter((name) => name.startsWith(this.refusedKey)).flatMap((name) => read<Refused>(name))
  }

  keepRefused(edit: Refused): void {
    this.store(this.refusedKey + edit.id, [edit])
  }

  dropRefused(id: string): void {
    localStorage.removeItem(this.refusedKey + id)
  }

  private stored(): Pending[] {
    return read<Pending>(this.key)
  }

  private store(key: string, rows: unknown[]): void {
    if (rows.length) localStorage.setItem(key, JSON.stringify(rows))
    else localStorage.removeItem(key)
  }

  /** The steps kept at a revision; none where the project has moved on since. */
  loadSteps(revision: number): Steps | null {
    try {
      const steps = JSON.parse(sessionStorage.getItem(this.stepsKey) ?? 'null') as Steps | null
      return steps?.revision === revision ? steps : null
    } catch {
      return null
    }
  }

  saveSteps(steps: Steps): void {
    const { revision, undo, redo } = steps
    try {
      const kept = { revision, undo: undo.slice(-MOST_STEPS), redo: redo.slice(-MOST_STEPS) }
      sessionStorage.setItem(this.stepsKey, JSON.stringify(kept))
    } catch {
      // No room: the steps last until the page is left.
      sessionStorage.removeItem(this.stepsKey)
    }
  }
}

/** The names of all that a storage holds. */
export function itemNames(storage: Storage): string[] {
  return Array.from({ length: storage.length }, (_, k) => storage.key(k)!)
}

/** How many edits are kept here for each project and not saved yet. */
export function editsKept(): Map<string, number> {
  const found = itemNames(localStorage).map((name) => [/^heathrise-pending-(.+)$/.exec(name)?.[1], read<Pending>(name).length] as const)
  return new Map(found.filter((row): row is readonly [string, number] => !!row[0] && row[1] > 0))
}

function read<T>(key: string): T[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '[]') as T[]
  } catch {
    return []
  }
}
