import type { Point, Wall } from '@/api/types'
import { along, distance, foot, rounded, squared } from './geometry'

const SNAP_GRID_M = 0.05
const PRECISE_M = 0.001

/** Where a drawing gesture lands, and to what: said beside the pointer, with the line that leads there. */
export interface Snap {
  at: Point
  to: 'end' | 'middle' | 'crossing' | 'wall' | 'square' | 'in line' | 'level' | 'grid'
  /** From what it is in line with, or level with. */
  guide?: [Point, Point]
}

export const SNAP_WORDS: Record<Snap['to'], string> = {
  end: 'end of a wall', middle: 'middle of a wall', crossing: 'where walls cross', wall: 'on a wall',
  square: 'straight across', 'in line': 'in line with a wall', level: 'level with an end', grid: '',
}

const ends = (w: Wall): Point[] => [w.a as Point, w.b as Point]
const middle = (w: Wall): Point => [(w.a[0] + w.b[0]) / 2, (w.a[1] + w.b[1]) / 2]

/**
 * The nearest thing that a point is meant for: a wall's end, a crossing, a middle; a wall; a line that a wall
 * would go on in; straight across or up from an end; else the grid.
 */
export function snapTo(point: Point, walls: Wall[], reachM: number, from?: Point): Snap {
  const found = nearest(point, walls.flatMap(ends), reachM, 'end')
    ?? nearest(point, crossings(point, walls, reachM), reachM, 'crossing')
    ?? nearest(point, walls.map(middle), reachM, 'middle')
  if (found) return found
  const guides = leading(point, walls, reachM, from)
  const wall = walls
    .map((w) => ({ w, ...foot(w, point) }))
    .filter((f) => f.off < reachM)
    .sort((a, b) => a.off - b.off)[0]
  if (wall) {
    // On a wall, and level with an end across the room.
    const level = guides.find((g) => g.to === 'level')
    const spot = along(wall.w, wall.at)
    const both = level && meeting(wall.w, level.guide!)
    return { at: rounded(both && distance(both, spot) < reachM ? both : spot, PRECISE_M), to: 'wall', guide: both ? level!.guide : undefined }
  }
  if (guides[0]) return guides[0]
  return { at: rounded(point, SNAP_GRID_M), to: 'grid' }
}

function nearest(point: Point, spots: Point[], reachM: number, to: Snap['to']): Snap | null {
  let best: Point | null = null
  for (const spot of spots) if (distance(spot, point) < Math.min(reachM, best ? distance(best, point) : Infinity)) best = spot
  return best && { at: [best[0], best[1]], to }
}

function crossings(point: Point, walls: Wall[], reachM: number): Point[] {
  const near = walls.filter((w) => foot(w, point).off < reachM)
  const found = near.flatMap((w, i) => near.slice(i + 1).map((o) => meeting(w, ends(o) as [Point, Point], true)))
  return found.filter((p) => p !== null)
}

/** Where the line of a wall meets another line; only between the ends of both where that is asked. */
function meeting(wall: Wall, [c, d]: [Point, Point], within = false): Point | null {
  const [a, b] = ends(wall) as [Point, Point]
  const [rx, ry, sx, sy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]]
  const turn = rx * sy - ry * sx
  if (Math.abs(turn) < 1e-6 * Math.hypot(rx, ry) * Math.hypot(sx, sy)) return null
  const share = ((c[0] - a[0]) * sy - (c[1] - a[1]) * sx) / turn
  const other = ((c[0] - a[0]) * ry - (c[1] - a[1]) * rx) / turn
  if (share < -0.001 || share > 1.001 || (within && (other < 0 || other > 1))) return null
  return [a[0] + rx * share, a[1] + ry * share]
}

/** Lines that lead to a point: on from a wall, and straight across or up from an end. */
function leading(point: Point, walls: Wall[], reachM: number, from?: Point): Snap[] {
  const half = reachM / 2
  const found: (Snap & { off: number })[] = []
  for (const k of from ? ([0, 1] as const) : []) {
    if (Math.abs(point[k] - from![k]) >= reachM) continue
    const spot: Point = k === 0 ? [from![0], point[1]] : [point[0], from![1]]
    found.push({ at: gridded(spot, k), to: 'square', off: -1 })
  }
  for (const wall of walls) {
    const [a, b] = ends(wall) as [Point, Point]
    const size = distance(a, b)
    const way: Point = [(b[0] - a[0]) / size, (b[1] - a[1]) / size]
    const at = (point[0] - a[0]) * way[0] + (point[1] - a[1]) * way[1]
    const spot: Point = [a[0] + way[0] * at, a[1] + way[1] * at]
    const off = distance(spot, point)
    if ((at < 0 || at > size) && off < half) found.push({ at: rounded(spot, PRECISE_M), to: 'in line', guide: [at < 0 ? a : b, spot], off })
    for (const end of [a, b]) {
      for (const k of [0, 1] as const) {
        const away = Math.abs(point[k] - end[k])
        if (away >= half || (from && Math.abs(from[k] - end[k]) < PRECISE_M)) continue
        const level: Point = k === 0 ? [end[0], point[1]] : [point[0], end[1]]
        found.push({ at: gridded(level, k), to: 'level', guide: [end, level], off: away })
      }
    }
  }
  return found.sort((p, q) => p.off - q.off)
}

/** What is held in one way is on the grid in the other. */
function gridded(spot: Point, held: 0 | 1): Point {
  const grid = rounded(spot, SNAP_GRID_M)
  return held === 0 ? [spot[0], grid[1]] : [grid[0], spot[1]]
}

/** The same from where a line begins: square to what it begins at, unless any angle is wanted. */
export function aimed(from: Point, point: Point, walls: Wall[], reachM: number, free: boolean): Snap {
  const straight = free ? point : squared(from, point, walls, reachM)
  const snap = snapTo(straight, walls, reachM, free ? from : undefined)
  if (free || snap.to === 'end' || snap.to === 'crossing' || snap.to === 'middle') return snap
  // What is square stays so: it goes on until it meets what it was snapped to.
  const size = distance(from, straight)
  if (!size) return snap
  const way: Point = [(straight[0] - from[0]) / size, (straight[1] - from[1]) / size]
  if (snap.to === 'wall') {
    const near = walls.filter((w) => foot(w, straight).off < reachM)
    const met = near.map((w) => meeting(w, [from, straight])).find((p) => p && distance(p, straight) < 2 * reachM)
    if (met) return { ...snap, at: rounded(met, PRECISE_M) }
  }
  const far = (snap.at[0] - from[0]) * way[0] + (snap.at[1] - from[1]) * way[1]
  return { ...snap, at: rounded([from[0] + way[0] * far, from[1] + way[1] * far], PRECISE_M) }
}
