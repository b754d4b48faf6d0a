import type { Point, Wall } from '@/api/types'

export function distance(a: Point, b: Point): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1])
}

/** Length along a path, in metres. */
export function pathLength(path: readonly (readonly number[])[]): number {
  return path.slice(1).reduce((sum, p, i) => sum + distance(path[i] as Point, p as Point), 0)
}

/** A path through points, in metres, for an SVG's d. */
export function linePath(points: readonly (readonly number[])[]): string {
  return `M${points.map((p) => p.join(' ')).join('L')}`
}

export function rounded(point: Point, step = 0.01): Point {
  const snap = (v: number) => Number((Math.round(v / step) * step).toFixed(4))
  return [snap(point[0]), snap(point[1])]
}

export function along(wall: Wall, metres: number): Point {
  const share = metres / distance(wall.a as Point, wall.b as Point)
  return [
    wall.a[0] + (wall.b[0] - wall.a[0]) * share,
    wall.a[1] + (wall.b[1] - wall.a[1]) * share,
  ]
}

/** The foot of a point on a wall: metres from its end a, and metres off it. */
export function foot(wall: Wall, point: Point): { at: number; off: number } {
  const size = distance(wall.a as Point, wall.b as Point)
  const dx = (wall.b[0] - wall.a[0]) / size
  const dy = (wall.b[1] - wall.a[1]) / size
  const at = (point[0] - wall.a[0]) * dx + (point[1] - wall.a[1]) * dy
  const inside = Math.min(Math.max(at, 0), size)
  return { at: inside, off: distance(point, [wall.a[0] + dx * inside, wall.a[1] + dy * inside]) }
}

/** West, south, east and north of points. */
export function boundsOf(points: readonly (readonly number[])[]): [number, number, number, number] {
  const xs = points.map((p) => p[0]!)
  const ys = points.map((p) => p[1]!)
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
}

/** The middle of an outline by area. */
export function centre(outline: readonly (readonly number[])[]): Point {
  let area = 0
  let x = 0
  let y = 0
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length]!
    const cross = p[0]! * q[1]! - q[0]! * p[1]!
    area += cross
    x += (p[0]! + q[0]!) * cross
    y += (p[1]! + q[1]!) * cross
  })
  if (Math.abs(area) < 1e-9) return [outline[0]![0]!, outline[0]![1]!]
  return [x / (3 * area), y / (3 * area)]
}

export function contains(outline: readonly (readonly number[])[], point: Point): boolean {
  let inside = false
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length]!
    const crosses = p[1]! > point[1] !== q[1]! > point[1]
    if (crosses && point[0] < ((q[0]! - p[0]!) * (point[1] - p[1]!)) / (q[1]! - p[1]!) + p[0]!) {
      inside = !inside
    }
  })
  return inside
}

/** The direction in radians of the wall that a point stands on, along the grid where there is none. */
function directionAt(from: Point, walls: Wall[], reachM: number): number {
  const near = (w: Wall) => Math.min(distance(w.a as Point, from), distance(w.b as Point, from)) < reachM / 4
  const wall = walls.find(near) ?? walls.find((w) => foot(w, from).off < reachM / 4)
  return wall ? Math.atan2(wall.b[1] - wall.a[1], wall.b[0] - wall.a[0]) : 0
}

/** A point moved so that it lies square to the wall that `from` stands on, or to the grid. */
export function squared(from: Point, point: Point, walls: Wall[], reachM: number): Point {
  for (const wall of walls) {
    for (const end of [wall.a, wall.b] as Point[]) if (distance(end, point) < reachM) return point
  }
  const base = directionAt(from, walls, reachM)
  const turn = Math.atan2(point[1] - from[1], point[0] - from[0]) - base
  const angle = base + (Math.round(turn / (Math.PI / 2)) * Math.PI) / 2
  const size = (point[0] - from[0]) * Math.cos(angle) + (point[1] - from[1]) * Math.sin(angle)
  return [from[0] + Math.cos(angle) * size, from[1] + Math.sin(angle) * size]
}

/** The point so far from another: at an angle clockwise from north, else in the direction of `aim`. */
export function towards(from: Point, aim: Point, metres: number, angleDeg?: number): Point {
  const far = distance(from, aim)
  const [dx, dy] =
    angleDeg !== undefined
      ? [Math.sin((angleDeg * Math.PI) / 180), Math.cos((angleDeg * Math.PI) / 180)]
      : far > 0 ? [(aim[0] - from[0]) / far, (aim[1] - from[1]) / far] : [1, 0]
  return rounded([from[0] + dx * metres, from[1] + dy * metres], 0.001)
}

/** The part of a way that is square to a wall. */
export function squareTo(wall: Wall, way: Point): Point {
  const size = distance(wall.a as Point, wall.b as Point)
  const normal: Point = [(wall.a[1] - wall.b[1]) / size, (wall.b[0] - wall.a[0]) / size]
  const far = way[0] * normal[0] + way[1] * normal[1]
  return [normal[0] * far, normal[1] * far]
}

/** The way from one point to another, in degrees clockwise from north. */
export function bearing(from: Point, to: Point): number {
  const degrees = (Math.atan2(to[0] - from[0], to[1] - from[1]) * 180) / Math.PI
  return Number(((degrees + 360) % 360).toFixed(2)) % 360
}
