import type { ElementOf, Kind } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'

type Named = { [K in Kind]: ElementOf<K> extends { name: string } ? K : never }[Kind]

/** What fields of a named element do: each change is an edit that says what of it changed. */
export function useFields<K extends Named>(kind: K, element: () => ElementOf<K>) {
  const store = useDesign()
  const name = () => (element() as { name: string }).name

  function set(change: Partial<ElementOf<K>>, what: string): void {
    store.commit(`${what} of ${name()}`, [put(kind, { ...element(), ...change })])
  }
  function setName(event: Event): void {
    const typed = (event.target as HTMLInputElement).value.trim()
    if (typed && typed !== name()) set({ name: typed } as unknown as Partial<ElementOf<K>>, 'Name')
  }
  return { set, setName }
}
