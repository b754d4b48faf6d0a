import type { Point, Space } from '@/api/types'
import { centre } from '@/document/geometry'
import type { Viewport } from './useViewport'

/** A room's name on the sheet: its lines, the middle of the first, and the room's width in pixels. */
export interface RoomName {
  space: Space
  x: number
  y: number
  px: number
  lines: string[]
}

const LETTER_PX = 6.3
const LINE_PX = 13

function widthOf(space: Space, viewport: Viewport): number {
  const xs = space.outline.map((p) => p[0])
  return (Math.max(...xs) - Math.min(...xs)) * viewport.scale.value
}

function heightOf(space: Space, viewport: Viewport): number {
  const ys = space.outline.map((p) => p[1])
  return (Math.max(...ys) - Math.min(...ys)) * viewport.scale.value
}

/** The spot for a name nearest the middle of its room where no mark stands, if there is one. */
function clear(marks: Point[], x: number, middle: number, width: number, height: number): Point | null {
  const up = Math.max(0, height / 2 - 14)
  const aside = Math.max(0, width / 2 - 34)
  for (const dx of [0, -70, 70, -140, 140]) {
    for (const dy of [0, -26, 30, -44, 48, -62, 66]) {
      if (Math.abs(dy) > up || Math.abs(dx) > aside) continue
      const [px, py] = [x + dx, middle + dy]
      if (marks.every((m) => Math.abs(m[0] - px) > 46 || py < m[1] - 16 || py > m[1] + 40)) return [px, py]
    }
  }
  return null
}

/** A name that fits its room: whole, over two lines, or cut with a mark. */
function lines(name: string, px: number): string[] {
  const fits = Math.max(2, Math.floor((px - 6) / LETTER_PX))
  if (name.length <= fits) return [name]
  const words = name.split(' ')
  if (words.length > 1 && words.every((w) => w.length <= fits)) {
    const half = Math.ceil(words.length / 2)
    const both = [words.slice(0, half).join(' '), words.slice(half).join(' ')]
    if (both.every((line) => line.length <= fits)) return both
  }
  return [`${name.slice(0, Math.max(1, fits - 1))}…`]
}

/** Place the names of rooms clear of the marks, which are in pixels. */
export function placeNames(spaces: Space[], marks: Point[], viewport: Viewport): RoomName[] {
  return spaces.flatMap((space) => {
    const [middleX, middleY] = viewport.toScreen(centre(space.outline))
    const px = widthOf(space, viewport)
    const spot = clear(marks, middleX, middleY, px, heightOf(space, viewport))
    return spot ? [{ space, x: spot[0], y: spot[1], px, lines: lines(space.name, px) }] : []
  })
}

/** Whether a figure at a spot in pixels would touch a name. */
export function touchesName(name: RoomName, x: number, y: number): boolean {
  const half = (Math.max(...name.lines.map((l) => l.length)) * LETTER_PX) / 2
  const down = y - name.y
  return Math.abs(x - name.x) < half + 14 && down > -18 && down < name.lines.length * LINE_PX + 14
}
