import { put } from '@/document/edits'
import { rounded } from '@/document/geometry'
import type { SheetTool } from './hand'

const RACK_HEIGHT_M = 1.2

export default {
  tool: 'equipment_room', name: 'Rack', key: 'e', order: 200, mark: 'hut',
  hint: 'press where a rack stands; each device goes to the one that is best for it',
  press({ store, floor, place }, at) {
    const here = store.find('floor', floor())!
    const building = store.find('building', here.building)!
    const id = store.nextId('equipment_room', 'rack')
    const name = store.all('equipment_room').length ? `${building.name} rack`.slice(0, 120) : 'Rack'
    const room = { id, floor: here.id, name, at: rounded(at, 0.05), rack_height_m: RACK_HEIGHT_M }
    place('equipment_room', `Place ${name}`, [put('equipment_room', room)], id)
  },
} satisfies SheetTool
