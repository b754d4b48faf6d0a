import { shallowRef } from 'vue'
import type { Duct, MainsRoute, Point, Space, Wall } from '@/api/types'
import { put } from '@/document/edits'
import { distance, rounded } from '@/document/geometry'
import { snapTo } from '@/document/snaps'
import { useDesign } from '@/document/store'

type Bent = Duct | MainsRoute | Space

/** What has corners to be moved: a path, open at its ends, or a room's outline. */
export interface Cornered {
  kind: 'duct' | 'mains_route' | 'space'
  id: string
  points: Point[]
}

const MERGED_M = 0.15

export function cornersOf(element: Bent): Cornered {
  if ('outline' in element) return { id: element.id, kind: 'space', points: element.outline }
  return { id: element.id, kind: 'depth_m' in element ? 'duct' : 'mains_route', points: element.path }
}

function withCorners<E extends Bent>(element: E, points: Point[]): E {
  return { ...element, ['path' in element ? 'path' : 'outline']: points }
}

/** Moving corners: one pulled from the middle of a side is new, one dropped on the next goes. */
export function useCorners(walls: () => Wall[], reach: () => number) {
  const store = useDesign()
  const moving = shallowRef<Cornered | null>(null)
  let index = -1

  function grab(shape: Cornered, corner: number, fresh: boolean): void {
    index = fresh ? corner + 1 : corner
    const points = [...shape.points]
    if (fresh) {
      const [a, b] = [points[corner]!, points[(corner + 1) % points.length]!]
      points.splice(index, 0, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])
    }
    moving.value = { ...shape, points }
  }

  function drag(at: Point): void {
    const held = moving.value
    if (!held) return
    const spot = held.kind === 'space' ? snapTo(at, walls(), reach()).at : rounded(at, 0.05)
    moving.value = { ...held, points: held.points.map((p, i) => (i === index ? spot : p)) }
  }

  function drop(): void {
    const held = moving.value
    moving.value = null
    if (!held) return
    const points = merged(held)
    const element = store.find(held.kind, held.id)!
    if (JSON.stringify(points) === JSON.stringify(cornersOf(element).points)) return
    store.commit(`Corner of ${element.name}`, [put(held.kind, withCorners(element, points))])
  }

  /** An element as it looks while one of its corners is moved. */
  function shown<E extends Bent>(element: E): E {
    return moving.value?.id === element.id ? withCorners(element, moving.value.points) : element
  }

  function merged(shape: Cornered): Point[] {
    const { points } = shape
    const open = shape.kind !== 'space'
    const least = open ? 2 : 3
    const near = [(index + points.length - 1) % points.length, (index + 1) % points.length]
    const ends = open && (index === 0 || index === points.length - 1)
    const meets = near.some((n) => distance(points[n]!, points[index]!) < MERGED_M)
    return meets && !ends && points.length > least ? points.filter((_, i) => i !== index) : points
  }

  function cancel(): void {
    moving.value = null
  }

  return { moving, shown, grab, drag, drop, cancel }
}
