import type { Point } from '@/api/types'
import { put } from '@/document/edits'
import { distance, snapped, squared, towards } from '@/document/geometry'
import { fromShown, lengthUnit } from '@/document/units'
import { innerConstruction } from './constructions'
import type { Hand, SheetTool } from './hand'

const SHORTEST_M = 0.1

function aim(hand: Hand, at: Point): Point {
  const from = hand.draft.value?.from
  const straight = from && !hand.free() ? squared(from, at, hand.walls(), hand.reach()) : at
  return snapped(straight, hand.walls(), hand.reach())
}

function draw(hand: Hand, from: Point, to: Point): void {
  if (distance(from, to) < SHORTEST_M) {
    hand.draft.value = null
    return
  }
  const { store, floor } = hand
  const id = store.nextId('wall', 'wall')
  store.commit('Draw wall', [put('wall', { id, floor: floor(), a: from, b: to, construction: innerConstruction.value, rated: false })])
  hand.draft.value = { from: to, to, shape: 'wall' }
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
    if (hand.draft.value) hand.draft.value = { ...hand.draft.value, to: aim(hand, at) }
  },
  typed(hand, text) {
    const begun = hand.draft.value
    const [size, angle, ...more] = text.trim().split(/[\s,;]+/).map(Number)
    if (!begun || more.length || !(size! > 0) || (angle !== undefined && !Number.isFinite(angle))) return false
    draw(hand, begun.from, towards(begun.from, begun.to, fromShown(size!), angle))
    return true
  },
} satisfies SheetTool
