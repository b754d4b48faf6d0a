import { computed, shallowRef } from 'vue'
import type { Point, Wall } from '@/api/types'
import { distance, squareTo, squared } from '@/document/geometry'
import { snapTo, type Snap } from '@/document/snaps'
import { length } from '@/document/units'
import { useMade } from '@/document/useMade'

const STEP_M = 0.05
const NUDGE_SAVE_MS = 500

/** A wall in the hand: moved square to itself with all that meets it, or by one of its ends. */
export function useWallHand(walls: () => Wall[], reach: () => number) {
  const gestures = useMade()
  const held = shallowRef<{ wall: Wall; end?: 'a' | 'b'; from: Point } | null>(null)
  const snap = shallowRef<Snap | null>(null)
  const movedM = shallowRef(0)
  let nudged: Point = [0, 0]
  let nudging = ''
  let later: ReturnType<typeof setTimeout> | undefined

  function grab(wall: Wall, from: Point, end?: 'a' | 'b'): void {
    finishNudge()
    held.value = { wall, end, from }
  }

  function move(at: Point, alone: boolean): void {
    const hand = held.value
    if (!hand) return
    const { wall, end, from } = hand
    if (end) {
      const others = walls().filter((w) => w.id !== wall.id)
      const fixed = wall[end === 'a' ? 'b' : 'a'] as Point
      snap.value = snapTo(alone ? at : squared(fixed, at, others, reach()), others, reach(), fixed)
      gestures.hold({ do: 'bend', wall: wall.id, end, to: snap.value.at, alone })
    } else {
      const far = lined(wall, squareTo(wall, [at[0] - from[0], at[1] - from[1]]))
      movedM.value = Math.hypot(far[0], far[1])
      gestures.hold({ do: 'move', walls: [wall.id], by: far, alone })
    }
  }

  /** A way square to a wall, to where it lies in line with another, else to the next step. */
  function lined(wall: Wall, far: Point): Point {
    const size = Math.hypot(far[0], far[1])
    if (!size) return far
    const way: Point = [far[0] / size, far[1] / size]
    const along: Point = [(wall.b[0] - wall.a[0]) / distance(wall.a as Point, wall.b as Point), (wall.b[1] - wall.a[1]) / distance(wall.a as Point, wall.b as Point)]
    for (const other of walls()) {
      if (other.id === wall.id) continue
      const offs = ([other.a, other.b] as Point[]).map((p) => (p[0] - wall.a[0]) * way[0] + (p[1] - wall.a[1]) * way[1])
      const level = Math.abs((other.b[0] - other.a[0]) * along[1] - (other.b[1] - other.a[1]) * along[0]) < 0.01
      if (level && Math.abs(offs[0]! - size) < reach() && offs[0]! > STEP_M) return [way[0] * offs[0]!, way[1] * offs[0]!]
    }
    const stepped = Math.round(size / STEP_M) * STEP_M
    return [way[0] * stepped, way[1] * stepped]
  }

  async function drop(): Promise<void> {
    const hand = held.value
    held.value = snap.value = null
    movedM.value = 0
    if (hand && gestures.holding()) await gestures.drop(hand.end ? 'Move corner of walls' : 'Move wall')
  }

  /** Move the wall that is chosen by the keyboard; it is saved when the keys rest. */
  function nudge(wall: Wall, dx: number, dy: number): void {
    if (nudging !== wall.id) finishNudge()
    nudging = wall.id
    const far = squareTo(wall, [nudged[0] + dx, nudged[1] + dy])
    nudged = far
    gestures.hold({ do: 'move', walls: [wall.id], by: far, alone: false })
    clearTimeout(later)
    later = setTimeout(finishNudge, NUDGE_SAVE_MS)
  }

  function finishNudge(): void {
    clearTimeout(later)
    if (!nudging) return
    nudging = ''
    nudged = [0, 0]
    void gestures.drop('Move wall')
  }

  function cancel(): void {
    clearTimeout(later)
    nudging = ''
    nudged = [0, 0]
    if (held.value || gestures.holding()) gestures.cancel()
    held.value = snap.value = null
  }

  /** What the hand is told while it moves something. */
  const told = computed(() => {
    if (gestures.why.value) return gestures.why.value
    if (!held.value) return ''
    if (held.value.end) return 'what meets this corner goes along; Alt takes it off'
    return `moved ${length(movedM.value, 2)}; what meets it goes along, Alt moves it alone`
  })

  return { held, snap, told, why: gestures.why, grab, move, drop, nudge, cancel, make: gestures.make }
}
