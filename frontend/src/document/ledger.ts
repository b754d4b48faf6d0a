import type { Change } from '@/api/types'
import type { Batch, Pending } from './keeper'
import { applyTo, inverseOf, touches, type Tables } from './tables'

/**
 * The open design as this window has it: its tables with every edit in them, the edits that are not saved
 * yet, and the steps back and forth. Never changed in place; each function gives the next one.
 */
export interface Ledger {
  readonly revision: number
  readonly tables: Tables
  readonly pending: readonly Pending[]
  readonly undo: readonly Batch[]
  readonly redo: readonly Batch[]
}

/** Two versions of the same elements: somebody saved in between what is being changed here. */
export interface Conflict {
  theirs: Change[]
  revision: number
}

const LONGEST_LABEL = 120

export function opened(revision: number, tables: Tables): Ledger {
  return { revision, tables, pending: [], undo: [], redo: [] }
}

/** Take up edits that were kept here and never saved. */
export function takenUp(ledger: Ledger, kept: Pending[]): Ledger {
  const tables = kept.reduce((made, batch) => applyTo(made, batch.changes), ledger.tables)
  return { ...ledger, tables, pending: kept }
}

/** An edit: it shows at once, can be undone, and waits to be saved. */
export function committed(ledger: Ledger, id: string, label: string, changes: Change[]): Ledger {
  const back = { label, changes: inverseOf(ledger.tables, changes), edit: id }
  return { ...queued(ledger, id, label, changes), undo: [...ledger.undo, back], redo: [] }
}

/**
 * An edit that waits to be saved grows by what follows from it: one edit, and one step back. Where it was
 * taken back meanwhile, or a later edit says otherwise, it stays as it is.
 */
export function extended(ledger: Ledger, id: string, more: Change[]): Ledger {
  const at = ledger.pending.findIndex((b) => b.id === id)
  const edit = ledger.pending[at]
  const later = ledger.pending.slice(at + 1)
  const back = ledger.undo.find((b) => b.edit === id)
  if (!edit || !back || !more.length || touches(more, later.flatMap((b) => b.changes))) return ledger
  const wider: Batch = { ...back, changes: [...inverseOf(ledger.tables, more), ...back.changes] }
  const swapped = (steps: readonly Batch[]) => steps.map((b) => (b === back ? wider : b))
  const pending = ledger.pending.map((b, k) => {
    if (k < at) return b
    if (k === at) return { ...b, changes: [...b.changes, ...more] }
    return { ...b, before: b.before && { undo: swapped(b.before.undo), redo: b.before.redo } }
  })
  return { ...ledger, pending, undo: swapped(ledger.undo), tables: applyTo(ledger.tables, more) }
}

/** One step back or forth, itself an edit that waits to be saved; the same ledger where there is none. */
export function stepped(ledger: Ledger, id: string, way: 'undo' | 'redo'): Ledger {
  const batch = ledger[way].at(-1)
  if (!batch) return ledger
  const back = { label: batch.label, changes: inverseOf(ledger.tables, batch.changes) }
  const word = way === 'undo' ? 'Undo' : 'Redo'
  const next = queued(ledger, id, `${word}: ${batch.label}`.slice(0, LONGEST_LABEL), batch.changes)
  const rest = ledger[way].slice(0, -1)
  return way === 'undo'
    ? { ...next, undo: rest, redo: [...ledger.redo, back] }
    : { ...next, redo: rest, undo: [...ledger.undo, back] }
}

function queued(ledger: Ledger, id: string, label: string, changes: Change[]): Ledger {
  const before = { undo: ledger.undo, redo: ledger.redo }
  const pending = [...ledger.pending, { id, label, changes, before }]
  return { ...ledger, tables: applyTo(ledger.tables, changes), pending }
}

/** The oldest edit is saved. */
export function acknowledged(ledger: Ledger, revision: number): Ledger {
  return { ...ledger, revision, pending: ledger.pending.slice(1) }
}

/** Somebody saved in between: replay on top where other elements are touched, else it is a conflict. */
export function rebased(ledger: Ledger, theirs: Change[], revision: number): Ledger | Conflict {
  const mine = ledger.pending
  if (JSON.stringify(theirs) === JSON.stringify(mine[0]?.changes)) {
    // The edit had arrived; only the answer was lost.
    return acknowledged(ledger, revision)
  }
  if (touches(theirs, mine.flatMap((b) => b.changes))) return { theirs, revision }
  return { ...ledger, revision, tables: applyTo(ledger.tables, theirs) }
}

export function isConflict(outcome: Ledger | Conflict): outcome is Conflict {
  return 'theirs' in outcome
}

/** A conflict is settled: mine on top of theirs, or theirs alone, and then no step of mine fits any more. */
export function resolved(ledger: Ledger, conflict: Conflict, keepMine: boolean): Ledger {
  const theirs = applyTo(ledger.tables, conflict.theirs)
  const { revision } = conflict
  if (!keepMine) return { revision, tables: theirs, pending: [], undo: [], redo: [] }
  return takenUp({ ...ledger, revision, tables: theirs }, [...ledger.pending])
}

/**
 * The server will not have the oldest edit: it is taken back, and those behind it are made anew on the design
 * as the server has it, which are `tables`; the steps are those from before it and theirs.
 */
export function refused(ledger: Ledger, revision: number, tables: Tables): Ledger {
  const [first, ...rest] = ledger.pending
  const before: Ledger = { revision, tables, pending: [], undo: first?.before?.undo ?? [], redo: first?.before?.redo ?? [] }
  return rest.reduce((made, { id, label, changes }) => committed(made, id, label, changes), before)
}
