import { ref, shallowRef } from 'vue'
import type { ElementOf, Point } from '@/api/types'
import type { useDesign } from '@/document/store'

/** Two points on the client's plan whose distance is known and still to be said. */
export const toScale = shallowRef<{ from: Point; to: Point } | null>(null)
/** Four corners of a rectangle on the client's plan whose sides are still to be said. */
export const toStraighten = shallowRef<Point[] | null>(null)
/** Two points on a plan that has its scale, to check it by. */
export const toCheck = shallowRef<{ from: Point; to: Point } | null>(null)
/** What the next thing that is found is, by its catalogue's name. */
export const foundModel = ref('old-router')

/** The client's plan under a storey. */
export function underlayOf(store: ReturnType<typeof useDesign>, floor: string): ElementOf<'underlay'> | undefined {
  return store.all('underlay').find((u) => u.floor === floor)
}
