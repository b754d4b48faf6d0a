import { shallowRef } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Change, Followed, RoomQuestion, Gesture } from '@/api/types'
import type { Pending } from './keeper'
import type { Tables } from './tables'

/** An edit of walls waits no longer than this for what rooms do; what is left is found, and offered. */
const LONGEST_MS = 3000

/** Whether changes draw, move or take away a wall. */
export function movesWalls(tables: Tables, changes: Change[]): boolean {
  return changes.some((change) => {
    if (change.kind !== 'wall') return false
    if (change.op === 'remove') return true
    const before = tables.wall?.get(change.element.id)
    const ends = (w: unknown) => JSON.stringify([(w as { a: unknown }).a, (w as { b: unknown }).b])
    return !before || ends(before) !== ends(change.element)
  })
}

/** What a gesture changes, on top of what is not saved yet. */
export async function askGesture(project_id: string, unsaved: Change[], gesture: Gesture): Promise<Followed> {
  const call = api.POST('/api/projects/{project_id}/gestures', { params: { path: { project_id } }, body: { unsaved, gesture } })
  return (await taken(call)) as Followed
}

interface Unsaved {
  id: () => string
  pending: () => readonly Pending[]
  extend: (edit: string, more: Change[]) => void
}

/** Rooms follow the walls of an edit: one after another, each before its edit is saved. */
export function useFollowing(design: Unsaved) {
  /** What only a person can say of the rooms of the last edit. */
  const questions = shallowRef<RoomQuestion[]>([])
  const under = new Map<string, Promise<void>>()
  let last: Promise<void> = Promise.resolve()

  function follow(edit: string): void {
    last = last.then(() => Promise.race([ask(edit), wait()])).finally(() => under.delete(edit))
    under.set(edit, last)
  }

  async function ask(edit: string): Promise<void> {
    const pending = design.pending()
    const at = pending.findIndex((b) => b.id === edit)
    if (at < 0) return
    const project = design.id()
    const { changes } = pending[at]!
    try {
      const followed = await askGesture(project, pending.slice(0, at).flatMap((b) => b.changes), { do: 'said', changes })
      // What comes after the edit was sent would be shown here and never saved.
      if (project !== design.id() || !under.has(edit)) return
      design.extend(edit, followed.changes.slice(changes.length))
      questions.value = followed.questions
    } catch (error) {
      // Whatever went wrong, what comes after must still be saved.
      if (!(error instanceof ApiError)) console.error(error)
    }
  }

  /** Resolves once an edit says all that follows from it. */
  const settled = (edit: string): Promise<void> => under.get(edit) ?? Promise.resolve()
  const wait = () => new Promise<void>((done) => setTimeout(done, LONGEST_MS))
  const forget = () => (questions.value = [])

  return { questions, follow, settled, forget }
}
