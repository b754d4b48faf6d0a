import { MEASURES } from '@/api/drawing'
import type { Point } from '@/api/types'

/** A mark where it stands, in pixels; `rack` is the rack it is in; one that is `held` does not give way. */
export interface Stood {
  key: string
  x: number
  y: number
  rack: string | null
  held: boolean
}

/** Where a mark is drawn, and where it really stands if that is elsewhere. */
export interface Drawn {
  x: number
  y: number
  from: Point | null
}

const APART_PX = 21
const RINGS_PX = [21, 32, 44]
const TURNS = 12

/** The rack that something is in: what the line comes in at, within an arm's length of it. */
export function rackOf<T extends { id: string; at: Point; floor: string }>(device: { at: Point; floor: string }, rooms: readonly T[]): string | null {
  const near = rooms.filter((r) => r.floor === device.floor && Math.hypot(r.at[0] - device.at[0], r.at[1] - device.at[1]) <= MEASURES.rack_reach_m)
  return near[0]?.id ?? null
}

/**
 * Draw marks apart that would lie on one another: what is in a rack beside it, all else on the
 * nearest free spot round where it stands.
 */
export function spread(marks: readonly Stood[]): Map<string, Drawn> {
  const drawn = new Map<string, Drawn>()
  const taken: Point[] = []
  const free = (x: number, y: number) => taken.every((t) => Math.hypot(t[0] - x, t[1] - y) >= APART_PX - 0.5)
  const put = (mark: Stood, x: number, y: number) => {
    taken.push([x, y])
    drawn.set(mark.key, { x, y, from: x === mark.x && y === mark.y ? null : [mark.x, mark.y] })
  }
  const racks = new Map(marks.filter((m) => m.rack === m.key).map((m) => [m.key, m]))
  const first = (m: Stood) => (m.held ? 0 : racks.has(m.key) ? 1 : m.rack ? 2 : 3)
  const inRack = new Map<string, number>()
  for (const mark of [...marks].sort((a, b) => first(a) - first(b))) {
    const rack = mark.rack && mark.rack !== mark.key && !mark.held ? racks.get(mark.rack) : undefined
    if (rack) {
      const nth = (inRack.get(rack.key) ?? 0) + 1
      inRack.set(rack.key, nth)
      const at = drawn.get(rack.key) ?? rack
      put(mark, at.x + APART_PX * nth, at.y)
      continue
    }
    put(mark, ...(free(mark.x, mark.y) || mark.held ? ([mark.x, mark.y] as const) : (besides(mark, free) ?? ([mark.x, mark.y] as const))))
  }
  return drawn
}

function besides(mark: Stood, free: (x: number, y: number) => boolean): readonly [number, number] | null {
  for (const ring of RINGS_PX) {
    for (let k = 0; k < TURNS; k++) {
      const turn = (2 * Math.PI * k) / TURNS
      const [x, y] = [mark.x + ring * Math.cos(turn), mark.y + ring * Math.sin(turn)]
      if (free(x, y)) return [x, y]
    }
  }
  return null
}
