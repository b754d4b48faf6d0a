import { MEASURES } from '@/api/drawing'
import type { AnyElement, Change, Device, ElementOf, Floor, Kind, Point, Space, Wall } from '@/api/types'
import { along, contains, distance, foot } from './geometry'
import { modelsOf, roleOf } from './kinds'
import { removalOf } from './removal'
import type { useDesign } from './store'

type Store = ReturnType<typeof useDesign>

export function put(kind: Kind, element: AnyElement): Change {
  return { op: 'put', kind, element }
}

/** What was said of a device's run, or one of which nothing is said yet. */
export function runSaid(store: Store, device: string): ElementOf<'run'> {
  const said = store.all('run').find((r) => r.device === device)
  const id = `r-${device}`.slice(0, 40)
  return said ?? { id: store.find('run', id) ? store.nextId('run', 'run') : id, device, category: null, cables: null, equipment_room: null, over_air: false, through: null, shortest: false, medium: null }
}

/** The changes that take an element away with all that cannot stand without it. */
export function removal(store: Store, kind: Kind, id: string): Change[] {
  return removalOf(store.tables, kind, id)
}

/** Of some storeys the one nearest in height to another. */
export function nearestStorey(storeys: Floor[], to: Floor): Floor | undefined {
  const rise = (f: Floor) => Math.abs(f.elevation_m - to.elevation_m)
  return [...storeys].sort((a, b) => rise(a) - rise(b))[0]
}

/** A floor on top of the highest one of its building, like it in all else. */
export function newFloor(store: Store, building: string): Floor {
  const top = store.all('floor').filter((f) => f.building === building).sort((a, b) => b.level - a.level)[0]
  const level = top ? top.level + 1 : 0
  return {
    id: store.nextId('floor', 'floor'), building, name: top ? `Floor ${level}` : 'Ground floor', level,
    elevation_m: top ? Number((top.elevation_m + top.ceiling_height_m + MEASURES.slab_m).toFixed(2)) : 0,
    ceiling_height_m: top?.ceiling_height_m ?? 2.7, slab: top?.slab ?? 'floor-timber',
    overhead: top?.overhead ?? 'ceiling_void',
  }
}

/** Another building with the storey that stands on its ground: the storey is put last. */
export function newBuilding(store: Store): { name: string; floor: Floor; changes: Change[] } {
  const id = store.nextId('building', 'building')
  const name = `Building ${store.all('building').length + 1}`
  const floor = { ...newFloor(store, id), name }
  return { name, floor, changes: [put('building', { id, name, roof: 'roof-tiles', built: null }), put('floor', floor)] }
}

export function spaceAt(store: Store, floor: string, at: Point): Space | undefined {
  return store.all('space').find((s) => s.floor === floor && contains(s.outline, at))
}

/** A new device where the user pressed, of the model last used, at its mount's usual height. */
export function newDevice(store: Store, kind: Device['kind'], floorId: string, at: Point): Device {
  const role = roleOf(store.catalogue, kind)!
  const id = store.nextId('device', role.stem)
  const last = store.all('device').filter((d) => d.kind === kind && d.state === 'new').at(-1)
  const model = last?.model ?? modelsOf(store.catalogue, kind).find((m) => !m.old && !m.withdrawn)?.id ?? ''
  const mounts = store.catalogue?.devices[kind]?.[model]?.mounts ?? []
  const floor = store.find('floor', floorId)
  const room = spaceAt(store, floorId, at)
  const ceiling = room?.ceiling_height_m ?? floor?.ceiling_height_m ?? 2.7
  return {
    id, floor: floorId, kind, name: `${role.prefix}-${id.split('-').at(-1)}`, at, model,
    height_m: Math.min(role.height_m ?? ceiling, ceiling),
    mount: !mounts.length || mounts.includes(role.mount) ? role.mount : mounts[0]!,
    azimuth_deg: 0, tilt_deg: 0, state: 'new', reduced: false, disks: null, redundancy: null, splitter: null,
  }
}

/** The corners of a rectangle from two that lie across from one another. */
export function rectangle(a: Point, b: Point): Point[] {
  const [west, east] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])]
  const [south, north] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])]
  return [[west, south], [east, south], [east, north], [west, north]]
}

/**
 * A room of any shape: its space, and walls along those of its sides that have none yet, inner ones beside
 * a room that is there. An outer wall that now stands between two rooms becomes an inner one.
 */
export function newRoom(store: Store, floor: string, corners: Point[], inner: string, outer: string): Change[] {
  const id = store.nextId('space', 'room')
  const space: Space = {
    id, floor, name: `Room ${id.split('-').at(-1)}`, use: 'everyday', outline: corners,
    overhead: null, ceiling_height_m: null, open_above: false, stairs: false, outdoor: false, water: null, locks: null,
  }
  const walls = store.all('wall').filter((w) => w.floor === floor)
  const changes: Change[] = []
  let number = Number(store.nextId('wall', 'wall').split('-').at(-1))
  const build = (a: Point, b: Point, construction: string) =>
    changes.push(put('wall', { id: `wall-${number++}`, floor, a, b, construction, rated: false }))
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % corners.length]!
    for (const [p, q] of uncovered(walls, corner, next)) {
      build(p, q, roomBeside(store, floor, p, q) ? inner : outer)
    }
    for (const wall of walls.filter((w) => w.construction === outer)) {
      changes.push(...madeInner(store, wall, corner, next, inner, build))
    }
  })
  return [...changes, put('space', space)]
}

/** Whether a room lies on either side of the middle of a stretch. */
function roomBeside(store: Store, floor: string, a: Point, b: Point): boolean {
  const size = distance(a, b)
  const [nx, ny] = [-(b[1] - a[1]) / size, (b[0] - a[0]) / size]
  const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  return [MEASURES.beside_m, -MEASURES.beside_m].some((off) => spaceAt(store, floor, [middle[0] + nx * off, middle[1] + ny * off]))
}

/** Make an inner wall of the part of an outer one that lies along a new room's side. */
function madeInner(
  store: Store, wall: Wall, a: Point, b: Point, inner: string,
  build: (a: Point, b: Point, construction: string) => void,
): Change[] {
  const [p, q] = [wall.a as Point, wall.b as Point]
  if (!onLine(a, b, p) || !onLine(a, b, q)) return []
  const size = distance(p, q)
  const [from, to] = [foot(wall, a).at, foot(wall, b).at].sort((x, y) => x - y) as [number, number]
  if (to - from < MEASURES.shortest_wall_m) return []
  if (from < MEASURES.shortest_wall_m && size - to < MEASURES.shortest_wall_m) {
    return [put('wall', { ...wall, construction: inner })]
  }
  // A wall with doors is not cut: they stand at a distance from its end.
  if (store.all('opening').some((o) => o.wall === wall.id)) return []
  if (from >= MEASURES.shortest_wall_m) build(p, along(wall, from), wall.construction)
  if (size - to >= MEASURES.shortest_wall_m) build(along(wall, to), q, wall.construction)
  return [put('wall', { ...wall, a: along(wall, from), b: along(wall, to), construction: inner })]
}

/** The stretches of a side along which no wall stands yet: a wall that is there is shared. */
function uncovered(walls: Wall[], a: Point, b: Point): [Point, Point][] {
  const size = distance(a, b)
  const side = { a, b } as Wall
  const taken = walls
    .filter((w) => onLine(a, b, w.a as Point) && onLine(a, b, w.b as Point))
    .map((w) => [foot(side, w.a as Point).at, foot(side, w.b as Point).at].sort((p, q) => p - q))
    .sort((p, q) => p[0]! - q[0]!)
  const free: [Point, Point][] = []
  const spot = (at: number): Point => [a[0] + ((b[0] - a[0]) * at) / size, a[1] + ((b[1] - a[1]) * at) / size]
  let at = 0
  for (const [from, to] of [...taken, [size, size]]) {
    if (from! - at > MEASURES.shortest_wall_m) free.push([spot(at), spot(from!)])
    at = Math.max(at, to!)
  }
  return free
}

function onLine(a: Point, b: Point, point: Point): boolean {
  const cross = (b[0] - a[0]) * (point[1] - a[1]) - (b[1] - a[1]) * (point[0] - a[0])
  return Math.abs(cross) / distance(a, b) < MEASURES.on_line_m
}

/** A door or window with its middle at a point, on the wall nearest to it. */
export function newOpening(
  store: Store, floor: string, at: Point, kind: 'door' | 'window', reachM: number,
): ElementOf<'opening'> | null {
  let best: { wall: Wall; at: number; off: number } | null = null
  for (const wall of store.all('wall')) {
    if (wall.floor !== floor) continue
    const found = foot(wall, at)
    if (found.off < reachM && (!best || found.off < best.off)) best = { wall, ...found }
  }
  if (!best) return null
  const size = distance(best.wall.a as Point, best.wall.b as Point)
  const width = Math.min(kind === 'door' ? 0.9 : 1.4, size)
  const offset = Math.min(Math.max(best.at - width / 2, 0), size - width)
  return {
    id: store.nextId('opening', 'opening'), wall: best.wall.id, kind, width_m: width,
    offset_m: Number(offset.toFixed(3)),
    construction: kind === 'door' ? 'door-hollow' : 'glass-clear',
  }
}
