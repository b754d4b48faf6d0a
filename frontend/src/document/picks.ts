import type { AnyElement, Kind, Point } from '@/api/types'
import type { Selection, useDesign } from './store'
import { boundsOf } from './geometry'

type Store = ReturnType<typeof useDesign>
export type PickKind = Extract<Kind, 'wall' | 'opening' | 'space' | 'riser' | 'equipment_room' | 'device' | 'panel' | 'socket' | 'light' | 'mains_route' | 'line_entry' | 'zone' | 'pain' | 'old_cable'>
export interface Pick {
  kind: PickKind
  id: string
}

/** What can be chosen together, in the order it is told, one and many of each. */
export const PICKED: Record<PickKind, [string, string]> = {
  wall: ['wall', 'walls'], opening: ['opening', 'openings'], space: ['room', 'rooms'], equipment_room: ['rack', 'racks'], riser: ['riser', 'risers'],
  device: ['device', 'devices'], panel: ['panel', 'panels'], socket: ['socket', 'sockets'], light: ['light', 'lights'], mains_route: ['mains cable', 'mains cables'],
  line_entry: ['line', 'lines'], zone: ['zone', 'zones'], pain: ['complaint', 'complaints'], old_cable: ['old cable', 'old cables'],
}
const KINDS = Object.keys(PICKED) as PickKind[]

/** The points that a thing is drawn by; none of an opening, which is where its wall is. */
export function spotsOf(element: AnyElement): Point[] {
  const one = element as unknown as { at?: Point; a?: Point; b?: Point; outline?: Point[]; path?: Point[] }
  return [one.at, one.a, one.b].filter((p): p is Point => Array.isArray(p)).concat(one.outline ?? [], one.path ?? [])
}

export function asPicks(chosen: readonly Selection[]): Pick[] {
  return chosen.filter((c): c is Pick => c.kind in PICKED)
}

/** Everything of a storey that lies wholly within a frame; all of it without one. */
export function within(store: Store, floor: string, frame?: [Point, Point]): Pick[] {
  const [west, south, east, north] = frame ? boundsOf(frame) : [-Infinity, -Infinity, Infinity, Infinity]
  const inside = (p: Point) => p[0] >= west && p[0] <= east && p[1] >= south && p[1] <= north
  return KINDS.flatMap((kind) =>
    store.all(kind)
      .filter((e) => 'floor' in e && e.floor === floor)
      .filter((e) => spotsOf(e).length > 0 && spotsOf(e).every(inside))
      .map((e) => ({ kind, id: e.id })),
  )
}

/** What of things that are chosen there is. */
export function elementsOf(store: Store, picks: readonly Selection[]): AnyElement[] {
  return picks.flatMap((p) => (store.find(p.kind, p.id) as AnyElement | undefined) ?? [])
}
