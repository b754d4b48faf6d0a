import type { Point } from '@/api/types'
import { put } from '@/document/edits'
import { distance, foot, rounded } from '@/document/geometry'
import { snapTo } from '@/document/snaps'
import type { Hand, SheetTool } from './hand'

/** What the building's electricity brings: none of it is this job's work, all of it is kept clear of. */
const AT_WALL_M = 0.8
const SAME_SPOT_M = 0.2
const SOCKET_M = 0.3

/** A spot on the nearest wall, and the way from the wall to where it was pressed, degrees from north. */
function atWall({ walls }: Hand, at: Point): { spot: Point; facing: number } {
  const rows = walls().map((wall) => ({ wall, ...foot(wall, at) })).sort((a, b) => a.off - b.off)
  const near = rows[0]
  if (!near || near.off > AT_WALL_M) return { spot: rounded(at, 0.05), facing: 0 }
  const { wall } = near
  const size = distance(wall.a, wall.b)
  const [dx, dy] = [(wall.b[0] - wall.a[0]) / size, (wall.b[1] - wall.a[1]) / size]
  const spot = rounded([wall.a[0] + dx * near.at, wall.a[1] + dy * near.at])
  // Which of the wall's two sides was pressed on: a panel faces there.
  const side = dx * (at[1] - wall.a[1]) - dy * (at[0] - wall.a[0]) >= 0 ? 1 : -1
  const degrees = (Math.atan2(-dy * side, dx * side) * 180) / Math.PI
  return { spot, facing: Math.round((degrees + 360) % 360) }
}

const panel: SheetTool = {
  tool: 'panel', name: 'Panel', key: 'b', order: 230, mark: 'sluice',
  hint: 'press beside the wall it hangs on, on the side it opens to; what lies before it is kept clear',
  press(hand, at) {
    const { store, floor, place } = hand
    const id = store.nextId('panel', 'panel')
    const { spot, facing } = atWall(hand, at)
    const name = store.all('panel').length ? `Panel ${id.split('-').at(-1)}` : 'Panel'
    place('panel', `Place ${name}`, [put('panel', { id, floor: floor(), name, at: spot, azimuth_deg: facing })], id)
  },
}

const socket: SheetTool = {
  tool: 'socket', name: 'Socket', key: 's', order: 231, mark: 'spring',
  hint: 'press where there is one; where one is wanted, say so afterwards',
  press(hand, at) {
    const { store, floor, place } = hand
    const id = store.nextId('socket', 'socket')
    const name = `Socket ${id.split('-').at(-1)}`
    const row = { id, floor: floor(), name, at: atWall(hand, at).spot, height_m: SOCKET_M, panel: null, circuit: '', state: 'keep' as const }
    place('socket', `Place ${name}`, [put('socket', row)], id)
  },
}

const light: SheetTool = {
  tool: 'light', name: 'Light', key: 'k', order: 233, mark: 'lamp',
  hint: 'press where a fitting hangs; access points keep off it',
  press({ store, floor, place }, at) {
    const id = store.nextId('light', 'light')
    const name = `Light ${id.split('-').at(-1)}`
    place('light', `Place ${name}`, [put('light', { id, floor: floor(), name, at: rounded(at, 0.05) })], id)
  },
}

function finish(hand: Hand): void {
  const { store, floor, path } = hand
  const drawn = path.value
  path.value = []
  if (drawn.length < 2) return
  const id = store.nextId('mains_route', 'mains')
  const name = `Mains ${id.split('-').at(-1)}`
  hand.place('mains_route', `Draw ${name}`, [put('mains_route', { id, floor: floor(), name, path: drawn })], id)
  hand.letGo()
}

const route: SheetTool = {
  tool: 'mains_route', name: 'Mains', key: 'm', order: 232, lines: 'M-9 6L-3 -2L1 3L9 -7M5 -7H9V-3',
  hint: 'press along a mains cable that was found; what nobody draws is taken along the walls',
  expects: ({ path }) => (path.value.length ? 'press each corner; Enter, or a second press, ends it' : ''),
  press(hand, at) {
    const { path, reach, walls } = hand
    const last = path.value.at(-1)
    const spot = snapTo(at, walls(), reach(), last).at
    if (last && distance(last, spot) < SAME_SPOT_M) return finish(hand)
    path.value = [...path.value, spot]
  },
  finish,
  cancel: ({ path }) => {
    path.value = []
  },
}

export default [panel, socket, route, light]
