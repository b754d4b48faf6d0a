import { KINDS } from '@/api/design'
import type { AnyElement, Change, Kind } from '@/api/types'

export type Tables = Partial<Record<Kind, Map<string, AnyElement>>>

function idOf(change: Change): string {
  return change.op === 'put' ? change.element.id : change.id
}

/** The tables after some changes; those no change touches stay the same objects. */
export function applyTo(tables: Tables, changes: Change[]): Tables {
  const next: Tables = { ...tables }
  for (const kind of new Set(changes.map((c) => c.kind))) next[kind] = new Map(tables[kind])
  for (const change of changes) {
    if (change.op === 'put') next[change.kind]!.set(change.element.id, change.element)
    else next[change.kind]!.delete(change.id)
  }
  return next
}

/** The changes that lead back: first what stands on others goes, then what was there returns. */
export function inverseOf(tables: Tables, changes: Change[]): Change[] {
  const back = new Map<string, Change>()
  for (const change of changes) {
    const id = idOf(change)
    const before = tables[change.kind]?.get(id)
    const key = `${change.kind} ${id}`
    if (before) back.set(key, { op: 'put', kind: change.kind, element: before })
    else if (change.op === 'put') back.set(key, { op: 'remove', kind: change.kind, id })
    else back.delete(key)
  }
  const rank = (c: Change) => KINDS.indexOf(c.kind)
  const puts = [...back.values()].filter((c) => c.op === 'put').sort((a, b) => rank(a) - rank(b))
  const removes = [...back.values()].filter((c) => c.op === 'remove')
  return [...puts, ...removes.sort((a, b) => rank(b) - rank(a))]
}

/** Whether two sets of changes touch the same element. */
export function touches(one: Change[], other: Change[]): boolean {
  const keys = new Set(one.map((c) => `${c.kind} ${idOf(c)}`))
  return other.some((c) => keys.has(`${c.kind} ${idOf(c)}`))
}
