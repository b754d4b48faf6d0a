import type { Point } from '@/api/types'
import { newRoom } from '@/document/edits'
import { distance, towards } from '@/document/geometry'
import { readLengthAndAngle } from '@/document/lengths'
import { lengthUnit } from '@/document/units'
import { innerConstruction, outerConstruction } from './constructions'
import type { Hand, SheetTool } from './hand'

const SHORTEST_M = 0.1
const FEWEST = 3

function add(hand: Hand, corner: Point): void {
  const { path } = hand
  const last = path.value.at(-1)
  if (!last || distance(last, corner) >= SHORTEST_M) path.value = [...path.value, corner]
}

function close({ path, store, floor }: Hand): void {
  const corners = path.value
  path.value = []
  if (corners.length < FEWEST) return
  const changes = newRoom(store, floor(), corners, innerConstruction.value, outerConstruction.value)
  store.commit('Draw room', changes)
  const space = changes.at(-1)!
  if (space.op === 'put') store.selection = { kind: 'space', id: space.element.id }
}

export default {
  tool: 'outline', name: 'Any shape', key: 'z', order: 31, lines: 'M-7 -6H1V0H7V6H-7Z',
  hint: 'press the corners of a room one by one; walls are drawn along its sides where none stand',
  typing: 'length, then an angle clockwise from north if it is not the way you point; Enter sets the corner',
  expects: ({ path }) => {
    if (!path.value.length) return ''
    const next = `press the next corner, or type its length (${lengthUnit()}) and angle; Alt for any angle`
    return path.value.length < FEWEST ? next : `${next}; the first corner or Enter closes it`
  },
  press(hand, at) {
    const [first, last] = [hand.path.value[0], hand.path.value.at(-1)]
    if (first && hand.path.value.length >= FEWEST && distance(first, at) < hand.reach()) return close(hand)
    add(hand, last ? hand.aim(last, at) : hand.snap(at))
  },
  move(hand, at) {
    const last = hand.path.value.at(-1)
    if (last) hand.aim(last, at)
    else hand.snap(at)
  },
  finish: close,
  cancel: ({ path }) => (path.value = []),
  typed(hand, text) {
    const last = hand.path.value.at(-1)
    const said = readLengthAndAngle(text)
    if (!last || !said) return false
    add(hand, towards(last, hand.pointer() ?? last, said.metres, said.angle))
    return true
  },
} satisfies SheetTool
