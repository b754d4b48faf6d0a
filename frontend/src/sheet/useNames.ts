import { computed } from 'vue'
import type { Device, ElementOf, EquipmentRoom, Riser, Space } from '@/api/types'
import { centre } from '@/document/geometry'
import { hasAir } from '@/document/kinds'
import { useDesign } from '@/document/store'
import type { Box } from './boxes'
import type { Abilities } from './mode'
import { placeNames } from './names'
import type { Drawn } from './spread'
import type { Viewport } from './useViewport'

/** What is on the sheet just now. */
interface OnSheet {
  viewport: Viewport
  can: () => Abilities
  floor: () => string
  leaving: () => Set<string> | undefined
  chosen: () => string | null
  spaces: () => Space[]
  devices: () => Device[]
  rooms: () => EquipmentRoom[]
  risers: () => Riser[]
  mains: () => { panels: ElementOf<'panel'>[]; sockets: ElementOf<'socket'>[]; lights: ElementOf<'light'>[] }
  drawn: () => Map<string, Drawn>
  furniture: () => Box[]
}

const NAMES_FROM_PX_PER_M = 9

/** Where names stand: clear of marks and of one another. */
export function useNames(now: OnSheet) {
  const store = useDesign()
  const here = <T extends { floor: string }>(rows: T[]) => rows.filter((r) => r.floor === now.floor())

  /** From afar the names of marks would only cover one another; outlets are not named on the signal. */
  return computed(() => {
    const near = now.viewport.scale.value >= NAMES_FROM_PX_PER_M
    const marks = [...now.rooms(), ...now.devices(), ...now.risers()].map((m) => {
      const { x, y } = now.drawn().get(m.id)!
      if (now.leaving()?.has(m.id)) return { key: m.id, name: '', x, y, must: false }
      const must = m.id === now.chosen()
      const quiet = now.can().air && 'kind' in m && !hasAir(store.catalogue, m)
      return { key: m.id, name: (near && !quiet) || must ? m.name : '', x, y, must }
    })
    for (const m of now.can().mains && now.can().tools ? [...now.mains().panels, ...now.mains().sockets, ...now.mains().lights] : []) {
      const [x, y] = now.viewport.toScreen(m.at)
      const must = m.id === now.chosen()
      marks.push({ key: m.id, name: must || (near && 'azimuth_deg' in m) ? m.name : '', x, y, must })
    }
    const noted = now.can().notes ? here([...store.all('pain'), ...store.all('line_entry')]) : []
    for (const m of noted) {
      const [x, y] = now.viewport.toScreen(m.at)
      marks.push({ key: m.id, name: '', x, y, must: false })
    }
    for (const zone of now.can().notes ? here(store.all('zone')) : []) {
      const [x, y] = now.viewport.toScreen(centre(zone.outline))
      marks.push({ key: zone.id, name: zone.name, x, y, must: false })
    }
    return placeNames(now.spaces(), marks, now.viewport, now.furniture(), now.can().air ? 14 : 0)
  })
}
