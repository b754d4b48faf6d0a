import { ROW_KEYS } from '@/api/exchange'
import type { ChapterPatch, Evaluation } from '@/api/types'

type Row = Record<string, unknown>
type Tree = Record<string, Record<string, unknown> | null>

/** The evaluation with what is different in it; rows that are the same stay the same objects. */
export function patched(evaluation: Evaluation, patch: Record<string, ChapterPatch>): Evaluation {
  const tree = evaluation as unknown as Tree
  const next: Tree = { ...tree }
  for (const [chapter, { set, rows }] of Object.entries(patch)) {
    const fields: Record<string, unknown> = { ...tree[chapter], ...set }
    for (const [field, change] of Object.entries(rows)) {
      const key = ROW_KEYS[chapter]?.[field] ?? ['id']
      fields[field] = rowsAfter((tree[chapter]?.[field] ?? []) as Row[], change, key)
    }
    next[chapter] = fields
  }
  return next as unknown as Evaluation
}

function rowsAfter(rows: Row[], change: ChapterPatch['rows'][string], key: string[]): Row[] {
  const name = (row: Row) => key.map((field) => String(row[field])).join('/')
  const gone = new Set(change.gone)
  const put = new Map((change.put as Row[]).map((row) => [name(row), row]))
  const kept = rows.filter((row) => !gone.has(name(row))).map((row) => put.get(name(row)) ?? row)
  const known = new Set(kept.map(name))
  const all = [...kept, ...[...put].filter(([n]) => !known.has(n)).map(([, row]) => row)]
  if (!change.order) return all
  const by = new Map(all.map((row) => [name(row), row]))
  return change.order.flatMap((n): Row[] => (by.has(n) ? [by.get(n)!] : []))
}

/** A whole evaluation; what was not worked out this time stays as it was. */
export function filled(evaluation: Evaluation, before: Evaluation | null): Evaluation {
  if (!before) return evaluation
  const next: Tree = { ...(evaluation as unknown as Tree) }
  for (const [chapter, fields] of Object.entries(before as unknown as Tree)) {
    const now = next[chapter]
    if (!now) next[chapter] = fields
    else for (const [field, value] of Object.entries(fields ?? {})) now[field] ??= value
  }
  return next as unknown as Evaluation
}
