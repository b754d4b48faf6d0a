import type { Role } from '@/api/types'
import { newDevice, put } from '@/document/edits'
import { rounded } from '@/document/geometry'
import type { SheetTool } from './hand'

/** The tool that places one of a kind of device. */
export function deviceTool({ kind, name, key, hint, mark }: Role, order: number): SheetTool {
  return {
    tool: kind, name, key, hint, mark, order,
    press({ store, floor, place }, at) {
      const device = newDevice(store, kind, floor(), rounded(at, 0.05))
      place('device', `Place ${device.name}`, [put('device', device)], device.id)
    },
  }
}
