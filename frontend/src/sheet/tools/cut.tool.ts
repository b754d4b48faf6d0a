import { cut } from '../cut'
import { distance } from '@/document/geometry'
import type { Hand, SheetTool } from './hand'

const SHORTEST_M = 0.5

function done({ draft, store, letGo }: Hand): void {
  const line = draft.value
  if (!line || distance(line.from, line.to) < SHORTEST_M) return
  cut.value = { project: store.id, a: line.from, b: line.to }
  draft.value = null
  letGo()
}

/** Where the section cuts through the site. */
export default {
  tool: 'cut', name: 'Cut', key: '', order: 900, stage: 'section', lines: 'M-8 0H8M-8 -3V3M8 -3V3',
  hint: 'press where the cut begins',
  expects: ({ draft }) => (draft.value ? 'press where it ends; Alt for any angle' : ''),
  press(hand, at) {
    const begun = hand.draft.value
    if (!begun) {
      const from = hand.snap(at)
      hand.draft.value = { from, to: from, shape: 'wall' }
      return
    }
    hand.draft.value = { ...begun, to: hand.aim(begun.from, at) }
    done(hand)
  },
  move(hand, at) {
    const begun = hand.draft.value
    if (begun) hand.draft.value = { ...begun, to: hand.aim(begun.from, at) }
  },
  release: done,
} satisfies SheetTool
