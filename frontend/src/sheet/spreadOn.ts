import type { Catalogue, Device, EquipmentRoom, Riser } from '@/api/types'
import { roleOf } from '@/document/kinds'
import { rackOf, spread, type Drawn } from './spread'
import type { Viewport } from './useViewport'

/** Where the marks of a storey are drawn; the one that is chosen stays under the hand. */
export function spreadOn(
  catalogue: Catalogue | null, rooms: readonly EquipmentRoom[], devices: readonly Device[], risers: readonly Riser[],
  viewport: Viewport, chosen: string | null,
): Map<string, Drawn> {
  const stood = (m: EquipmentRoom | Device | Riser, rack: string | null) => {
    const [x, y] = viewport.toScreen(m.at)
    return { key: m.id, x, y, rack, held: m.id === chosen }
  }
  return spread([
    ...rooms.map((r) => stood(r, r.id)),
    ...risers.map((r) => stood(r, null)),
    ...devices.map((d) => stood(d, roleOf(catalogue, d.kind)?.leads_out && d.state !== 'retire' ? rackOf(d, rooms) : null)),
  ])
}
