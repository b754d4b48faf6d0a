import { describe, expect, it } from 'vitest'
import type { ElementOf, Point } from '@/api/types'
import { distance } from '@/document/geometry'
import { readLength, readLengthAndAngle, readTwoLengths } from '@/document/lengths'
import { cropped, levelled, onPicture, pictureCorners, replaced, scaled, straightened } from '@/document/underlay'

const picture: ElementOf<'underlay'> = {
  id: 'u', floor: 'f', picture: 'p', name: 'Plan', width_px: 400, height_px: 200, metres_per_px: 0.05,
  at: [10, 5], turn_deg: 0, crop: [0, 0, 0, 0], strength: 0.6, hidden: false,
}

/** Where a spot of the picture lies on the site: the inverse of onPicture, written out. */
function onSite(p: typeof picture, [u, v]: Point): Point {
  const x = (u - 0.5) * p.width_px * p.metres_per_px
  const y = (0.5 - v) * p.height_px * p.metres_per_px
  const a = (-p.turn_deg * Math.PI) / 180
  return [p.at[0]! + x * Math.cos(a) - y * Math.sin(a), p.at[1]! + x * Math.sin(a) + y * Math.cos(a)]
}

const near = (a: Point, b: Point) => {
  expect(a[0]).toBeCloseTo(b[0], 3)
  expect(a[1]).toBeCloseTo(b[1], 3)
}

describe('a length as people write it', () => {
  it.each([
    ['3.5', 3.5], ['3,5 m', 3.5], ['350 cm', 3.5], ['3500mm', 3.5], [`12' 6"`, 3.81], [`12'6`, 3.81],
    ['12-6', 3.81], ['12 - 6', 3.81], ['12 ft 6 in', 3.81], [`12′ 6″`, 3.81], [`150"`, 3.81], [`12'`, 3.6576],
    [`12' 6 1/2"`, 3.8227], ['12-6 1/2', 3.8227], ['12.5 ft', 3.81],
  ])('%s', (written, metres) => expect(readLength(written)).toBeCloseTo(metres, 6))

  it.each(['', 'about five', '-3', '0', '12 yd', '3..5', "12' x"])('refuses %s', (written) => {
    expect(readLength(written)).toBeNull()
  })
})

describe('the plan under the drawing', () => {
  it('takes its scale from two points, the first of which stays', () => {
    const [a, b] = [onSite(picture, [0.1, 0.1]), onSite(picture, [0.6, 0.1])]
    const after = scaled(picture, a, b, 12)
    near(onSite(after, [0.1, 0.1]), a)
    expect(distance(onSite(after, [0.1, 0.1]), onSite(after, [0.6, 0.1]))).toBeCloseTo(12, 3)
  })

  it.each([7, -7, 83, 97, 178, -95])('is turned the short way by a line at %i degrees', (degrees) => {
    const start = onSite(picture, [0.2, 0.8])
    const a = (degrees * Math.PI) / 180
    const end: Point = [start[0] + 3 * Math.cos(a), start[1] + 3 * Math.sin(a)]
    const spot = onPicture(picture, end)
    const after = levelled(picture, start, end)
    near(onSite(after, onPicture(picture, start)), start)
    const [x, y] = onSite(after, spot)
    expect(Math.min(Math.abs(x - start[0]), Math.abs(y - start[1]))).toBeLessThan(2e-3)
    expect(Math.abs(after.turn_deg)).toBeLessThanOrEqual(45)
  })

  it('is cropped to a box, turned or not', () => {
    const tilted = { ...picture, turn_deg: 30 }
    const after = cropped(tilted, onSite(tilted, [0.25, 0.75]), onSite(tilted, [0.75, 0.1]))
    expect(after.crop.map((c) => Number(c.toFixed(3)))).toEqual([0.25, 0.1, 0.25, 0.25])
    expect(cropped(tilted, [10, 5], [10, 5])).toBe(tilted)
  })

  it('has its corners where they are seen', () => {
    const tilted = { ...picture, turn_deg: 30, crop: [0.1, 0, 0, 0.2] as [number, number, number, number] }
    const corners = pictureCorners(tilted)
    near(corners[0]!, onSite(tilted, [0.1, 0]))
    near(corners[2]!, onSite(tilted, [1, 0.8]))
  })

  it('is replaced without moving what is drawn', () => {
    const after = replaced(picture, { id: 'q', width_px: 1600, height_px: 800 }, 'New')
    near(onSite(after, [0, 0]), onSite(picture, [0, 0]))
    expect(after.picture).toBe('q')
  })
})

describe('what is typed while something is drawn', () => {
  it.each([
    ['4.2', 4.2, undefined],
    ['4,2 90', 4.2, 90],
    ['350 cm -45°', 3.5, -45],
    ["12' 6\" ∠ 180", 3.81, 180],
  ])('a length and an angle: %s', (written, metres, angle) => {
    const said = readLengthAndAngle(written)!
    expect(said.metres).toBeCloseTo(metres, 4)
    expect(said.angle).toBe(angle)
  })

  it.each([['4.2 3.5', 4.2, 3.5], ['420 cm x 3,5', 4.2, 3.5], ["10' × 9' 6\"", 3.048, 2.8956]])('two lengths: %s', (written, a, b) => {
    const said = readTwoLengths(written)!
    expect(said[0]).toBeCloseTo(a, 4)
    expect(said[1]).toBeCloseTo(b, 4)
  })

  it('what cannot be read', () => {
    expect([readLengthAndAngle('wide'), readLengthAndAngle('4 5 6'), readTwoLengths('4'), readTwoLengths('4 x 0')]).toEqual([null, null, null, null])
  })
})

describe('a picture made straight', () => {
  it('lies with the rectangle where it was pressed', () => {
    const picture = { id: 'p', floor: 'f', picture: 'old', name: 'Plan', width_px: 800, height_px: 600, metres_per_px: 0.02, at: [8, 6] as [number, number], turn_deg: 12, crop: [0, 0.1, 0, 0] as [number, number, number, number], strength: 0.6, hidden: false }
    const made = { id: 'new', width_px: 1000, height_px: 500, metres_per_px: 0.01, middle: [0.25, 0.5] }
    const straight = straightened(picture, made, [[2, 1], [6, 1], [6, 4], [2, 4]])
    // The rectangle's middle, a quarter from the left, is at 4, 2.5: the picture's own is 2.5 m east of it.
    expect(straight).toMatchObject({ picture: 'new', at: [6.5, 2.5], metres_per_px: 0.01, turn_deg: 0, crop: [0, 0, 0, 0] })
    expect(onPicture(straight, [4, 2.5])).toEqual([0.25, 0.5])
  })
})
