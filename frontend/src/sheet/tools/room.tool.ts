import { newRoom } from '@/document/edits'
import { snapped } from '@/document/geometry'
import { innerConstruction, outerConstruction } from './constructions'
import type { SheetTool } from './hand'

const NARROWEST_M = 0.5

export default {
  tool: 'room', name: 'Room', key: 'o', order: 30, lines: 'M-7 -6H7V6H-7Z',
  hint: 'drag from corner to corner; outer walls are drawn round it, inner ones beside a room that is there',
  press({ draft, walls, reach }, at) {
    const from = snapped(at, walls(), reach())
    draft.value = { from, to: from, shape: 'room' }
  },
  move({ draft, walls, reach }, at) {
    if (draft.value) draft.value = { ...draft.value, to: snapped(at, walls(), reach()) }
  },
  release({ draft, store, floor }) {
    const drawn = draft.value
    draft.value = null
    if (!drawn || drawn.shape !== 'room') return
    const { from, to } = drawn
    if (Math.abs(from[0] - to[0]) < NARROWEST_M || Math.abs(from[1] - to[1]) < NARROWEST_M) return
    const changes = newRoom(store, floor(), from, to, innerConstruction.value, outerConstruction.value)
    store.commit('Draw room', changes)
    const space = changes.at(-1)!
    if (space.op === 'put') store.selection = { kind: 'space', id: space.element.id }
  },
} satisfies SheetTool
