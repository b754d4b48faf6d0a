import { distance } from '@/document/geometry'
import type { SheetTool } from './hand'

const SHORTEST_M = 0.01

/** A tape laid on the sheet: nothing is drawn. */
export default {
  tool: 'tape', name: 'Tape', key: '.', order: 12, lines: 'M-8 4V-4H8V4ZM-4 -4V-1M0 -4V1M4 -4V-1',
  hint: 'press from where to where: the length is told beside the pointer',
  expects: ({ path }) => (path.value.length ? 'press on to measure round corners; Enter begins anew' : ''),
  press(hand, at) {
    const last = hand.path.value.at(-1)
    const spot = hand.snap(at)
    if (!last || distance(last, spot) > SHORTEST_M) hand.path.value = [...hand.path.value, spot]
  },
  move: (hand, at) => void hand.snap(at),
  finish: ({ path }) => (path.value = []),
  cancel: ({ path }) => (path.value = []),
} satisfies SheetTool
