import type { ElementOf, Point } from '@/api/types'
import { distance } from './geometry'

type Underlay = ElementOf<'underlay'>
const QUARTER = 90
const LEAST_CROP = 0.02

function turned([x, y]: Point, degrees: number): Point {
  const angle = (degrees * Math.PI) / 180
  return [x * Math.cos(angle) - y * Math.sin(angle), x * Math.sin(angle) + y * Math.cos(angle)]
}

const neat = (value: number, digits = 4) => Number(value.toFixed(digits))
const neatPoint = ([x, y]: Point): Point => [neat(x), neat(y)]

/** Where the middle comes to lie when a picture is turned and stretched about a point that stays. */
function about(at: Point, fixed: Point, factor: number, degrees: number): Point {
  const [x, y] = turned([(at[0] - fixed[0]) * factor, (at[1] - fixed[1]) * factor], degrees)
  return neatPoint([fixed[0] + x, fixed[1] + y])
}

/** The picture at the scale at which two points lie as far apart as they are known to; the first stays. */
export function scaled(picture: Underlay, from: Point, to: Point, metres: number): Underlay {
  const factor = metres / distance(from, to)
  return { ...picture, metres_per_px: picture.metres_per_px * factor, at: about(picture.at as Point, from, factor, 0) }
}

/** The picture turned, the short way, so that a line on it lies level or upright; its start stays. */
export function levelled(picture: Underlay, from: Point, to: Point): Underlay {
  const angle = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI
  const by = Math.round(angle / QUARTER) * QUARTER - angle
  const clockwise = (((picture.turn_deg - by + 180) % 360) + 360) % 360 - 180
  return { ...picture, turn_deg: neat(clockwise), at: about(picture.at as Point, from, 1, by) }
}

/** The shares of the picture, from its upper left corner, at which a spot of the site lies on it. */
export function onPicture(picture: Underlay, spot: Point): Point {
  const [x, y] = turned([spot[0] - picture.at[0]!, spot[1] - picture.at[1]!], picture.turn_deg)
  return [
    x / (picture.metres_per_px * picture.width_px) + 0.5,
    0.5 - y / (picture.metres_per_px * picture.height_px),
  ]
}

/** The picture with what lies outside a box left away; the box is drawn between two of its corners. */
export function cropped(picture: Underlay, from: Point, to: Point): Underlay {
  const [a, b] = [onPicture(picture, from), onPicture(picture, to)]
  const within = (value: number) => Math.min(1, Math.max(0, value))
  const [left, right] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])].map(within) as [number, number]
  const [top, bottom] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])].map(within) as [number, number]
  if (right - left < LEAST_CROP || bottom - top < LEAST_CROP) return picture
  return { ...picture, crop: [neat(left), neat(top), neat(1 - right), neat(1 - bottom)] }
}

/** Another picture in place of one: what is drawn stays under it as wide and where it was. */
export function replaced(picture: Underlay, file: { id: string; width_px: number; height_px: number }, name: string): Underlay {
  const wide = picture.metres_per_px * picture.width_px
  return {
    ...picture, picture: file.id, name, width_px: file.width_px, height_px: file.height_px,
    metres_per_px: wide / file.width_px,
  }
}

/** A straight picture in place of one at a slant: the middle of the rectangle stays where it was pressed. */
export function straightened(picture: Underlay, made: { id: string; width_px: number; height_px: number; metres_per_px: number; middle: number[] }, corners: Point[]): Underlay {
  const spot: Point = [corners.reduce((sum, c) => sum + c[0], 0) / corners.length, corners.reduce((sum, c) => sum + c[1], 0) / corners.length]
  const { metres_per_px, width_px, height_px } = made
  const at = neatPoint([
    spot[0] + (0.5 - made.middle[0]!) * width_px * metres_per_px,
    spot[1] - (0.5 - made.middle[1]!) * height_px * metres_per_px,
  ])
  return { ...picture, picture: made.id, width_px, height_px, metres_per_px, at, turn_deg: 0, crop: [0, 0, 0, 0] }
}

/** The corners of what is left of a picture, on the site. */
export function pictureCorners(picture: Underlay): Point[] {
  const [left, top, right, bottom] = picture.crop as [number, number, number, number]
  const spot = (u: number, v: number): Point => {
    const size = picture.metres_per_px
    const [x, y] = turned([(u - 0.5) * picture.width_px * size, (0.5 - v) * picture.height_px * size], -picture.turn_deg)
    return [picture.at[0] + x, picture.at[1] + y]
  }
  return [spot(left, top), spot(1 - right, top), spot(1 - right, 1 - bottom), spot(left, 1 - bottom)]
}
