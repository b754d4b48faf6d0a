import type { SheetTool } from './hand'

export default {
  tool: 'select', name: 'Select', key: 'v', order: 10, lines: 'M-5 -7L5 2L0 3L-2 8Z',
  hint: 'press a mark, a wall or a room; drag to move; drag the ground to pan',
} satisfies SheetTool
