import { shallowRef } from 'vue'
import type { Opening, Point, Wall } from '@/api/types'
import { put } from '@/document/edits'
import { distance, foot } from '@/document/geometry'
import { length } from '@/document/units'
import { useDesign } from '@/document/store'

const STEP_M = 0.05
const FINE_M = 0.001
const NUDGE_SAVE_MS = 500

/** A door or window in the hand: it slides along its wall, or goes over to another that it is held at. */
export function useOpeningHand(walls: () => Wall[], reach: () => number) {
  const store = useDesign()
  const held = shallowRef<Opening | null>(null)
  const told = shallowRef('')
  let later: ReturnType<typeof setTimeout> | undefined

  function grab(opening: Opening): void {
    finish()
    held.value = opening
  }

  /** Where it would stand in a wall with its middle at a point: in the wall's middle where that is near. */
  function within(wall: Wall, at: Point): number | null {
    const size = distance(wall.a as Point, wall.b as Point)
    const { width_m } = held.value!
    if (width_m > size) return null
    const spot = foot(wall, at).at
    const middle = Math.abs(spot - size / 2) < reach() / 2 ? size / 2 : Math.round(spot / STEP_M) * STEP_M
    return Number(Math.min(Math.max(middle - width_m / 2, 0), size - width_m).toFixed(4))
  }

  function move(at: Point): void {
    const opening = held.value
    if (!opening) return
    const near = walls().map((wall) => ({ wall, off: foot(wall, at).off })).sort((a, b) => a.off - b.off)
    const own = near.find((n) => n.wall.id === opening.wall)
    const host = near[0] && near[0].off < reach() && (!own || near[0].off + reach() / 2 < own.off) ? near[0] : own
    const offset = host && within(host.wall, at)
    if (!host || offset === null || offset === undefined) return
    show({ ...opening, wall: host.wall.id, offset_m: offset }, host.wall)
  }

  function show(moved: Opening, wall: Wall): void {
    const rest = distance(wall.a as Point, wall.b as Point) - moved.offset_m - moved.width_m
    told.value = `${length(moved.offset_m, 2)} from one end of its wall, ${length(Math.max(rest, 0), 2)} from the other`
    store.held = [put('opening', moved)]
    void store.preview(store.held)
  }

  function finish(): void {
    clearTimeout(later)
    const changes = store.held
    const opening = held.value
    held.value = null
    told.value = ''
    if (!opening) return
    store.held = []
    store.endPreview(changes.length > 0)
    store.commit(`Move ${opening.kind}`, changes)
  }

  /** Slide the one that is chosen along its wall by the keyboard. */
  function nudge(opening: Opening, dx: number, dy: number): void {
    const now = held.value?.id === opening.id ? (store.drawn('opening').find((o) => o.id === opening.id) ?? opening) : opening
    if (held.value?.id !== opening.id) grab(opening)
    const wall = store.find('wall', now.wall)
    if (!wall) return
    const size = distance(wall.a as Point, wall.b as Point)
    const along = (dx * (wall.b[0] - wall.a[0]) + dy * (wall.b[1] - wall.a[1])) / size
    const offset = Math.min(Math.max(now.offset_m + along, 0), size - now.width_m)
    if (Math.abs(offset - now.offset_m) < FINE_M) return
    show({ ...now, offset_m: Number(offset.toFixed(4)) }, wall)
    clearTimeout(later)
    later = setTimeout(finish, NUDGE_SAVE_MS)
  }

  function cancel(): void {
    clearTimeout(later)
    if (!held.value) return
    held.value = null
    told.value = ''
    store.held = []
    store.endPreview(false)
  }

  return { held, told, grab, move, drop: finish, nudge, cancel }
}
