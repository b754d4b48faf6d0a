import { newOpening, put } from '@/document/edits'
import type { SheetTool } from './hand'

function openingTool(kind: 'door' | 'window', name: string, key: string, order: number, lines: string): SheetTool {
  return {
    tool: kind, name, key, order, lines,
    hint: 'press on a wall',
    press({ store, floor, reach, place }, at) {
      const opening = newOpening(store, floor(), at, kind, reach() * 2)
      if (opening) place('opening', `Place ${kind}`, [put('opening', opening)], opening.id)
    },
  }
}

export default [
  openingTool('door', 'Door', 'd', 40, 'M-6 7V-7A14 14 0 0 1 8 7Z'),
  openingTool('window', 'Window', 'n', 50, 'M-8 -2H8M-8 2H8M-8 -5V5M8 -5V5'),
]
