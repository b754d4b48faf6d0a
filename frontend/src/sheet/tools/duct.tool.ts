import type { Floor, Point } from '@/api/types'
import { nearestStorey, put, spaceAt } from '@/document/edits'
import { distance } from '@/document/geometry'
import { snapTo } from '@/document/snaps'
import type { Hand, SheetTool } from './hand'

const SAME_SPOT_M = 0.2
const DEPTH_M = 0.6

/** The storey of another building that stands at a point, the nearest in height to this one. */
function buildingAt({ store, floor }: Hand, at: Point): Floor | undefined {
  const here = store.find('floor', floor())!
  const others = store.all('floor').filter((f) => f.building !== here.building)
  return nearestStorey(others.filter((f) => spaceAt(store, f.id, at)), here)
}

function finish(hand: Hand): void {
  const { store, floor, path } = hand
  const drawn = path.value
  path.value = []
  if (drawn.length < 2) return
  const id = store.nextId('duct', 'duct')
  const name = `Duct ${id.split('-').at(-1)}`
  const to = buildingAt(hand, drawn.at(-1)!)?.id ?? floor()
  const duct = { id, name, from_floor: floor(), to_floor: to, path: drawn, depth_m: DEPTH_M, dug: 'loam' as const }
  hand.place('duct', `Draw ${name}`, [put('duct', duct)], id)
  hand.letGo()
}

export default {
  tool: 'duct', name: 'Duct', key: 't', order: 220, lines: 'M-9 -5H-1V5H9M-9 -8V-2M9 2V8',
  hint: 'press where it leaves the building',
  expects: ({ path }) =>
    path.value.length ? 'press each corner, and in the other building; Enter, or a second press, ends it elsewhere' : '',
  /** A second press on the spot, or a corner inside another building, ends it. */
  press(hand, at) {
    const { path, reach } = hand
    const last = path.value.at(-1)
    const spot = snapTo(at, [], reach(), last).at
    if (last && distance(last, spot) < SAME_SPOT_M) return finish(hand)
    path.value = [...path.value, spot]
    if (path.value.length > 1 && buildingAt(hand, spot)) finish(hand)
  },
  finish,
  cancel: ({ path }) => {
    path.value = []
  },
} satisfies SheetTool
