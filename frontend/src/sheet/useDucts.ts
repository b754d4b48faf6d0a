import { shallowRef } from 'vue'
import type { Floor, Point } from '@/api/types'
import { nearestStorey, put, spaceAt } from '@/document/edits'
import { distance, snapped } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { tool } from './tools'

const SAME_SPOT_M = 0.2

/** Drawing a duct corner by corner. */
export function useDucts(floor: () => string, reach: () => number) {
  const store = useDesign()
  const path = shallowRef<Point[]>([])

  /** The storey of another building that stands at a point, the nearest in height to this one. */
  function buildingAt(at: Point): Floor | undefined {
    const here = store.find('floor', floor())!
    const others = store.all('floor').filter((f) => f.building !== here.building)
    return nearestStorey(others.filter((f) => spaceAt(store, f.id, at)), here)
  }

  function place(at: Point): void {
    const spot = snapped(at, [], reach(), path.value.at(-1))
    const last = path.value.at(-1)
    if (last && distance(last, spot) < SAME_SPOT_M) return finish()
    path.value = [...path.value, spot]
    if (path.value.length > 1 && buildingAt(spot)) finish()
  }

  /** Enter, a second press on the spot, or a corner inside another building ends the duct. */
  function finish(): void {
    const drawn = path.value
    path.value = []
    if (drawn.length < 2) return
    const id = store.nextId('duct', 'duct')
    const name = `Duct ${id.split('-').at(-1)}`
    const to = buildingAt(drawn.at(-1)!)?.id ?? floor()
    store.commit(`Draw ${name}`, [
      put('duct', { id, name, from_floor: floor(), to_floor: to, path: drawn, depth_m: 0.6 }),
    ])
    store.selection = { kind: 'duct', id }
    tool.value = 'select'
  }

  function cancel(): void {
    path.value = []
  }

  return { path, place, finish, cancel }
}
