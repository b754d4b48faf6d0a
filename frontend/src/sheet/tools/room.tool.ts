import type { Point } from '@/api/types'
import { newRoom, rectangle } from '@/document/edits'
import { readTwoLengths } from '@/document/lengths'
import { lengthUnit } from '@/document/units'
import { innerConstruction, outerConstruction } from './constructions'
import type { Hand, SheetTool } from './hand'

const NARROWEST_M = 0.5

const large = (from: Point, to: Point) => Math.abs(from[0] - to[0]) >= NARROWEST_M && Math.abs(from[1] - to[1]) >= NARROWEST_M

function draw({ draft, store, floor }: Hand, from: Point, to: Point): void {
  draft.value = null
  const changes = newRoom(store, floor(), rectangle(from, to), innerConstruction.value, outerConstruction.value)
  store.commit('Draw room', changes)
  const space = changes.at(-1)!
  if (space.op === 'put') store.selection = { kind: 'space', id: space.element.id }
}

/** A side of the room so long, towards where the pointer is. */
const beyond = (from: number, to: number, size: number) => from + (to < from ? -size : size)

export default {
  tool: 'room', name: 'Room', key: 'o', order: 30, lines: 'M-7 -6H7V6H-7Z',
  hint: 'drag from corner to corner, or press one and type its lengths; outer walls are drawn round it, inner ones beside a room that is there',
  typing: 'length across and length up, as 4.2 3.5, towards the pointer; Enter draws it',
  expects: ({ draft }) => (draft.value ? `press the corner across, or type both lengths (${lengthUnit()}), as 4.2 3.5` : ''),
  press(hand, at) {
    const spot = hand.snap(at)
    const begun = hand.draft.value
    if (begun && large(begun.from, spot)) draw(hand, begun.from, spot)
    else hand.draft.value = { from: spot, to: spot, shape: 'room' }
  },
  move({ draft, snap }, at) {
    const to = snap(at)
    if (draft.value) draft.value = { ...draft.value, to }
  },
  release(hand) {
    const drawn = hand.draft.value
    // A press that was not dragged has set a corner; the other is still to come.
    if (drawn?.shape === 'room' && large(drawn.from, drawn.to)) draw(hand, drawn.from, drawn.to)
  },
  typed(hand, text) {
    const begun = hand.draft.value
    const sizes = readTwoLengths(text)
    if (!begun || !sizes || Math.min(...sizes) < NARROWEST_M) return false
    const [wide, deep] = sizes
    draw(hand, begun.from, [beyond(begun.from[0], begun.to[0], wide), beyond(begun.from[1], begun.to[1], deep)])
    return true
  },
} satisfies SheetTool
