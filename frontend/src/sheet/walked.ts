import type { Walk, WalkPoint } from '@/api/types'

/** A walk as the sheet draws it: its corners, what became of the call, the moment looked at in s. */
export interface Walked {
  points: WalkPoint[]
  walk: Walk | null
  moment: number
}
