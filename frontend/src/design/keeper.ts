import type { Change } from '@/api/types'

/** One edit: what it is called and what it changes. */
export interface Batch {
  label: string
  changes: Change[]
}

/** Keeps edits that are not yet saved in the browser, so that closing it loses nothing. */
export class Keeper {
  private readonly key: string

  constructor(projectId: string) {
    this.key = `heathrise-pending-${projectId}`
  }

  load(): Batch[] {
    try {
      return JSON.parse(localStorage.getItem(this.key) ?? '[]') as Batch[]
    } catch {
      return []
    }
  }

  save(batches: Batch[]): void {
    if (batches.length) localStorage.setItem(this.key, JSON.stringify(batches))
    else localStorage.removeItem(this.key)
  }
}
