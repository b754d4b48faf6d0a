import type { Point, Space } from '@/api/types'
import { boundsOf, centre, contains } from '@/document/geometry'
import { overlaps, type Box } from './boxes'
import type { Viewport } from './useViewport'

/** A room's name on the sheet: its lines, and the middle of the first. */
export interface RoomName {
  space: Space
  x: number
  y: number
  lines: string[]
}

/** A mark that wants its name beside it; `must` says that it is shown whatever it covers. */
export interface Named {
  key: string
  name: string
  x: number
  y: number
  must: boolean
}

/** Where a mark's name stands from its middle. */
export interface MarkName {
  dx: number
  dy: number
  anchor: 'start' | 'middle' | 'end'
}

export interface Names {
  rooms: RoomName[]
  marks: Map<string, MarkName>
  /** All that is taken: marks, their names, the names of rooms. */
  taken: Box[]
}

const LETTER_PX = 6.1
const LINE_PX = 13
const RISE_PX = 10 // of a line above its foot
const MARK_PX = 10
const STEP_X_PX = 18
const STEP_Y_PX = 11
const SHORTEST = 4 // letters that still say which room it is
const ROUND_MARK: MarkName[] = [
  { dx: 0, dy: 24, anchor: 'middle' },
  { dx: 0, dy: -15, anchor: 'middle' },
  { dx: 13, dy: 4, anchor: 'start' },
  { dx: -13, dy: 4, anchor: 'end' },
]

function boxOf(x: number, y: number, lines: readonly string[], anchor: MarkName['anchor'] = 'middle'): Box {
  const wide = Math.max(...lines.map((l) => l.length)) * LETTER_PX + 4
  const left = anchor === 'start' ? x : anchor === 'end' ? x - wide : x - wide / 2
  return { left, right: left + wide, top: y - RISE_PX, bottom: y - RISE_PX + lines.length * LINE_PX }
}

function around(x: number, y: number, reach: number): Box {
  return { left: x - reach, right: x + reach, top: y - reach, bottom: y + reach }
}

/** A name over one line or two, then cut shorter and shorter, `longest` letters to a line. */
function* writings(name: string, longest: number): Generator<string[]> {
  const words = name.split(' ')
  if (name.length <= longest) yield [name]
  const half = Math.ceil(words.length / 2)
  const both = [words.slice(0, half).join(' '), words.slice(half).join(' ')]
  if (words.length > 1 && both.every((line) => line.length <= longest)) yield both
  // What tells like rooms apart stays: "Practice 8" becomes "Prac… 8".
  const number = words.length > 1 && words.at(-1)!.length <= 2 ? ` ${words.at(-1)}` : ''
  const most = Math.min(longest, name.length) - 1 - number.length
  for (let letters = most; letters >= SHORTEST - number.length; letters -= 3) {
    yield [`${name.slice(0, letters).trimEnd()}…${number}`]
  }
}

/** Spots for a name within a room, those nearest its middle first. */
function spots(space: Space, viewport: Viewport): Point[] {
  const corners = space.outline.map((p) => viewport.toScreen(p))
  const [x, y] = viewport.toScreen(centre(space.outline))
  const across = Math.max(...corners.map((c) => Math.abs(c[0] - x)))
  const down = Math.max(...corners.map((c) => Math.abs(c[1] - y)))
  const found: Point[] = []
  for (let dx = 0; dx < across; dx += STEP_X_PX) {
    for (let dy = 0; dy < down; dy += STEP_Y_PX) {
      for (const sx of dx ? [-dx, dx] : [0]) for (const sy of dy ? [dy, -dy] : [0]) found.push([x + sx, y + sy])
    }
  }
  return found.sort((a, b) => Math.hypot(a[0] - x, 2 * (a[1] - y)) - Math.hypot(b[0] - x, 2 * (b[1] - y)))
}

function within(space: Space, box: Box, viewport: Viewport): boolean {
  const corners = [[box.left, box.top], [box.right, box.top], [box.right, box.bottom], [box.left, box.bottom]]
  return corners.every(([x, y]) => contains(space.outline, viewport.toWorld(x!, y!)))
}

function roomName(space: Space, taken: readonly Box[], viewport: Viewport, tail: number): [RoomName, Box] | null {
  const [west, , east] = boundsOf(space.outline)
  const longest = Math.floor(((east - west) * viewport.scale.value - 6) / LETTER_PX)
  const places = spots(space, viewport)
  for (const lines of writings(space.name, longest)) {
    for (const [x, y] of places) {
      const box = boxOf(x, y, lines)
      box.bottom += tail
      if (!taken.some((t) => overlaps(t, box)) && within(space, box, viewport)) return [{ space, x, y, lines }, box]
    }
  }
  return null
}

/**
 * Place the names of marks beside them and of rooms within them, so that none lies on another, on
 * a mark or on the furniture. What has no place is shortened, else left out.
 *
 * @param tail pixels kept under a room's name for its verdict.
 */
export function placeNames(
  spaces: readonly Space[], marks: readonly Named[], viewport: Viewport, furniture: readonly Box[] = [], tail = 0,
): Names {
  const taken: Box[] = [...furniture, ...marks.map((m) => around(m.x, m.y, MARK_PX))]
  const placed = new Map<string, MarkName>()
  for (const mark of [...marks].sort((a, b) => Number(b.must) - Number(a.must))) {
    if (!mark.name) continue
    const box = (at: MarkName) => boxOf(mark.x + at.dx, mark.y + at.dy, [mark.name], at.anchor)
    const free = ROUND_MARK.find((at) => !taken.some((t) => overlaps(t, box(at)))) ?? (mark.must ? ROUND_MARK[0] : undefined)
    if (!free) continue
    placed.set(mark.key, free)
    taken.push(box(free))
  }
  const rooms: RoomName[] = []
  for (const space of spaces) {
    const found = roomName(space, taken, viewport, tail)
    if (!found) continue
    rooms.push(found[0])
    taken.push(found[1])
  }
  return { rooms, marks: placed, taken }
}
