import { PATHS, PENS, type Path } from '@/api/drawing'
import type { Catalogue } from '@/api/types'

/** How a construction is drawn: its thickness in m, its tone and, where lighter, its dashes. */
export interface PenOnScreen {
  width: number
  tone: string
  dash?: string
  double: boolean
}

const TONES = {
  masonry: 'var(--wall-masonry)', light: 'var(--wall-light)', timber: 'var(--wall-timber)', metal: 'var(--wall-metal)', glass: 'var(--tarn)',
} as const
const PLAIN: PenOnScreen = { width: 0.15, tone: TONES.light, double: false }

export function penFor(construction: string): PenOnScreen {
  const pen = PENS[construction]
  return pen ? { width: pen.width_m, tone: TONES[pen.tone], dash: pen.dash_m?.join(' '), double: pen.double } : PLAIN
}

export function constructionsOf(catalogue: Catalogue | null, kinds: string[]) {
  return Object.values(catalogue?.constructions ?? {}).filter((c) => kinds.includes(c.kind))
}

const PLAIN_PATH: Path = { dash_px: [9, 4], weight_px: 1.5 }

/** How a path of cable is drawn: by its category, or by what lies between racks. */
export const penOf = (path: string): Path => PATHS[path] ?? PLAIN_PATH
/** The path that a run is drawn as: by its category, fibre as fibre. */
export const pathOf = (run: { medium: string; category: string }): string => (run.medium === 'fibre' ? 'fibre' : run.category)
export const dashOf = (path: string): string => penOf(path).dash_px.join(' ')
