import { shallowRef } from 'vue'
import type { Point } from '@/api/types'

/** Where the site is cut for the section, of one project; along the building where nobody said. */
export const cut = shallowRef<{ project: string; a: Point; b: Point } | null>(null)
/** The cut that is drawn just now, for the sheet to show. */
export const drawnCut = shallowRef<{ a: Point; b: Point } | null>(null)
