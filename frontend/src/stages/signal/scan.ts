import type { Point } from '@/api/types'
import { rounded } from '@/document/geometry'
import type { Looking } from './looking'

/** A press says where the air was scanned. */
export function scan(at: Point, { scanned }: Looking): true {
  scanned.value = rounded(at)
  return true
}
