import { within } from '@/document/picks'
import type { SheetTool } from './hand'

export default {
  tool: 'frame', name: 'Frame', key: 'f', order: 11, lines: 'M-7 -5H7V5H-7ZM-7 -5h.1M7 5h.1M-3 -1h6v2h-6z',
  hint: 'drag a frame: what lies wholly in it is chosen together; Shift adds to what is chosen',
  press: ({ draft }, at) => (draft.value = { from: at, to: at, shape: 'room' }),
  move({ draft }, at) {
    if (draft.value) draft.value = { ...draft.value, to: at }
  },
  release({ draft, store, floor, letGo, adds }) {
    const framed = draft.value
    if (!framed) return
    draft.value = null
    const found = within(store, floor(), [framed.from, framed.to])
    const before = adds() ? (store.picks.length ? store.picks : store.selection ? [store.selection] : []) : []
    const kept = before.filter((b) => !found.some((f) => f.kind === b.kind && f.id === b.id))
    store.pick([...kept, ...found])
    letGo()
  },
} satisfies SheetTool
