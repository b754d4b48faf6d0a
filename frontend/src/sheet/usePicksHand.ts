import { computed, shallowRef } from 'vue'
import type { Point } from '@/api/types'
import { boundsOf, rounded } from '@/document/geometry'
import { asPicks, elementsOf, spotsOf, type Pick } from '@/document/picks'
import { removalOfAll } from '@/document/removal'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { useMade } from '@/document/useMade'

const STEP_M = 0.05
const NUDGE_SAVE_MS = 500

/** What was copied, to be put down elsewhere; it is of one project. */
const copied = shallowRef<{ project: string; picks: Pick[]; middle: Point } | null>(null)

/** Many things in the hand at once: moved, copied and put down, taken away. */
export function usePicksHand(floor: () => string) {
  const store = useDesign()
  const made = useMade()
  const from = shallowRef<Point | null>(null)
  const by = shallowRef<Point>([0, 0])
  let later: ReturnType<typeof setTimeout> | undefined

  const picks = () => asPicks(store.picks)
  const words = () => `${picks().length} things`

  function grab(at: Point): void {
    from.value = at
    by.value = [0, 0]
  }

  function move(at: Point): void {
    if (!from.value) return
    shift(rounded([at[0] - from.value[0], at[1] - from.value[1]], STEP_M))
  }

  function shift(way: Point): void {
    by.value = way
    made.hold({ do: 'shift', picks: picks(), by: way })
  }

  async function drop(): Promise<void> {
    clearTimeout(later)
    from.value = null
    const moved = Math.hypot(...by.value) > 0
    by.value = [0, 0]
    if (moved) await made.drop(`Move ${words()}`)
  }

  function nudge(dx: number, dy: number): void {
    shift([by.value[0] + dx, by.value[1] + dy])
    clearTimeout(later)
    later = setTimeout(() => void drop(), NUDGE_SAVE_MS)
  }

  function copy(): void {
    const chosen = picks().length ? picks() : store.selection ? asPicks([store.selection]) : []
    const spots = elementsOf(store, chosen).flatMap(spotsOf)
    if (!spots.length) return
    const [west, south, east, north] = boundsOf(spots)
    copied.value = { project: store.id, picks: chosen, middle: [(west + east) / 2, (south + north) / 2] }
  }

  /** Put what was copied down with its middle at a point, on the storey that is shown. */
  async function paste(at: Point | null): Promise<void> {
    const held = copied.value
    if (!held || held.project !== store.id) return
    const way = at ? rounded([at[0] - held.middle[0], at[1] - held.middle[1]], STEP_M) : ([1, -1] as Point)
    const before = new Set(held.picks.map((p) => p.kind).flatMap((kind) => store.all(kind).map((e) => `${kind} ${e.id}`)))
    const done = await made.make(`Copy ${held.picks.length} things`, { do: 'copy', picks: held.picks, by: way, times: 1, floor: floor() })
    if (!done) return
    const kinds = [...new Set(held.picks.map((p) => p.kind))]
    store.pick(kinds.flatMap((kind) => store.all(kind).filter((e) => !before.has(`${kind} ${e.id}`)).map((e) => ({ kind, id: e.id }))))
  }

  function remove(): void {
    store.commit(`Remove ${words()}`, removalOfAll(store.tables, store.picks))
  }

  function cancel(): void {
    clearTimeout(later)
    if (from.value || made.holding()) made.cancel()
    from.value = null
    by.value = [0, 0]
  }

  const told = computed(() => {
    if (made.why.value) return made.why.value
    const size = Math.hypot(...by.value)
    return size ? `moved ${length(size, 2)}: ${length(Math.abs(by.value[0]), 2)} ${by.value[0] < 0 ? 'west' : 'east'}, ${length(Math.abs(by.value[1]), 2)} ${by.value[1] < 0 ? 'south' : 'north'}` : ''
  })

  return { from, told, why: made.why, grab, move, drop, nudge, copy, paste, remove, cancel }
}
