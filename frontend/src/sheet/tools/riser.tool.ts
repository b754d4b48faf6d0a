import { put } from '@/document/edits'
import { rounded } from '@/document/geometry'
import type { SheetTool } from './hand'

export default {
  tool: 'riser', name: 'Riser', key: 'i', order: 210, mark: 'well',
  hint: 'press where cables can rise through the floors',
  press({ store, floor, place }, at) {
    const { building } = store.find('floor', floor())!
    const levels = store.all('floor').filter((f) => f.building === building).map((f) => f.level)
    const id = store.nextId('riser', 'riser')
    const riser = {
      id, building, name: `Riser ${id.split('-').at(-1)}`, at: rounded(at, 0.05),
      lowest_level: Math.min(...levels), highest_level: Math.max(...levels),
    }
    place('riser', 'Place riser', [put('riser', riser)], id)
  },
} satisfies SheetTool
