import { KINDS, REFERENCES } from '@/api/design'
import type { AnyElement, Change, Kind } from '@/api/types'
import type { Tables } from './tables'

/**
 * The changes that take an element away: what cannot stand without it goes with it, dependants first, and
 * what only mentions it stays and mentions it no longer.
 */
export function removalOf(tables: Tables, kind: Kind, id: string): Change[] {
  return removalOfAll(tables, [{ kind, id }])
}

/** The same of several things at once. */
export function removalOfAll(tables: Tables, things: { kind: Kind; id: string }[]): Change[] {
  const gone = new Map<string, { kind: Kind; id: string }>()
  const waiting = [...things]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const key = `${next.kind} ${next.id}`
    if (gone.has(key)) continue
    gone.set(key, next)
    waiting.push(...standingOn(tables, next.kind, next.id))
  }
  const isGone = (of: Kind, at: unknown) => gone.has(`${of} ${String(at)}`)
  const mentions: Change[] = []
  for (const child of KINDS) {
    for (const element of tables[child]?.values() ?? []) {
      if (isGone(child, element.id)) continue
      const kept = unmentioned(child, element, isGone)
      if (kept !== element) mentions.push({ op: 'put', kind: child, element: kept })
    }
  }
  const rank = (c: { kind: Kind }) => KINDS.indexOf(c.kind)
  const removals = [...gone.values()].sort((a, b) => rank(b) - rank(a))
  return [...mentions, ...removals.map((r): Change => ({ op: 'remove', ...r }))]
}

/** What cannot stand without an element: what must refer to one, and refers to this. */
function standingOn(tables: Tables, kind: Kind, id: string): { kind: Kind; id: string }[] {
  return KINDS.flatMap((child) =>
    REFERENCES[child]
      .filter((r) => r.kind === kind && !r.many && !r.optional)
      .flatMap((r) =>
        [...(tables[child]?.values() ?? [])]
          .filter((element) => held(element, r.field) === id)
          .map((element) => ({ kind: child, id: element.id })),
      ),
  )
}

function held(element: AnyElement, field: string): unknown {
  return (element as unknown as Record<string, unknown>)[field]
}

/** The element without what it mentions that goes; the same object where it mentions none of it. */
function unmentioned(kind: Kind, element: AnyElement, isGone: (of: Kind, id: unknown) => boolean): AnyElement {
  let kept = element
  for (const r of REFERENCES[kind]) {
    const value = held(kept, r.field)
    if (r.many && (value as string[]).some((id) => isGone(r.kind, id))) {
      kept = { ...kept, [r.field]: (value as string[]).filter((id) => !isGone(r.kind, id)) } as AnyElement
    } else if (r.optional && value !== null && isGone(r.kind, value)) {
      kept = { ...kept, [r.field]: null } as AnyElement
    }
  }
  return kept
}
