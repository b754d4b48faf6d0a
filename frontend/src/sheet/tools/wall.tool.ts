import type { Point } from '@/api/types'
import { put } from '@/document/edits'
import { distance, foot, towards } from '@/document/geometry'
import { readLengthAndAngle } from '@/document/lengths'
import { lengthUnit } from '@/document/units'
import { drawsOuter, innerConstruction, outerConstruction } from './constructions'
import type { Hand, SheetTool } from './hand'

const SHORTEST_M = 0.1
const AT_WALL_M = 0.005

function aim(hand: Hand, at: Point): Point {
  const begun = hand.draft.value
  return begun ? hand.aim(begun.from, at) : hand.snap(at)
}

function draw(hand: Hand, from: Point, to: Point): void {
  if (distance(from, to) < SHORTEST_M) {
    hand.draft.value = null
    return
  }
  const { store, floor } = hand
  const id = store.nextId('wall', 'wall')
  const { start = from, drawn = [] } = hand.draft.value ?? {}
  // Where it comes round, or meets a wall that stood there before, a line of walls is done: the next begins anew.
  const meets = hand.walls().some((w) => !drawn.includes(w.id) && foot(w, to).off < AT_WALL_M)
  const construction = (drawsOuter.value ? outerConstruction : innerConstruction).value
  store.commit('Draw wall', [put('wall', { id, floor: floor(), a: from, b: to, construction, rated: false })])
  const done = meets || distance(start, to) < SHORTEST_M
  hand.draft.value = done ? null : { from: to, to, shape: 'wall', start, drawn: [...drawn, id] }
}

export default {
  tool: 'wall', name: 'Wall', key: 'w', order: 20, lines: 'M-8 6L8 -6',
  hint: 'press where the wall starts',
  typing: 'length, then an angle clockwise from north if it is not the way you point; Enter draws it',
  expects: ({ draft }) =>
    draft.value ? `press where it ends, or type its length (${lengthUnit()}) and angle; Alt for any angle` : '',
  press(hand, at) {
    const to = aim(hand, at)
    if (hand.draft.value) draw(hand, hand.draft.value.from, to)
    else hand.draft.value = { from: to, to, shape: 'wall' }
  },
  move(hand, at) {
    const to = aim(hand, at)
    if (hand.draft.value) hand.draft.value = { ...hand.draft.value, to }
  },
  typed(hand, text) {
    const begun = hand.draft.value
    const said = readLengthAndAngle(text)
    if (!begun || !said) return false
    draw(hand, begun.from, towards(begun.from, begun.to, said.metres, said.angle))
    return true
  },
} satisfies SheetTool
