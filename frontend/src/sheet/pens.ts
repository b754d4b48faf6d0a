import type { Catalogue } from '@/api/types'

/** How a construction is drawn: its thickness in m, its tone and, where lighter, its dashes. */
export interface Pen {
  width: number
  tone: string
  dash?: string
  double?: boolean
}

const PENS: Record<string, Pen> = {
  plasterboard: { width: 0.1, tone: 'var(--wall-light)' },
  'foil-board': { width: 0.14, tone: 'var(--wall-metal)', dash: '0.5 0.12' },
  'brick-single': { width: 0.16, tone: 'var(--wall-masonry)', double: true },
  'brick-cavity': { width: 0.3, tone: 'var(--wall-masonry)', double: true },
  'block-light': { width: 0.14, tone: 'var(--wall-light)', double: true },
  'block-dense': { width: 0.2, tone: 'var(--wall-masonry)' },
  concrete: { width: 0.28, tone: 'var(--wall-masonry)' },
  stone: { width: 0.42, tone: 'var(--wall-masonry)', dash: '0.7 0.1' },
  'timber-clad': { width: 0.2, tone: 'var(--wall-timber)' },
  metal: { width: 0.12, tone: 'var(--wall-metal)', dash: '0.2 0.1' },
  'wet-wall': { width: 0.14, tone: 'var(--wall-light)', dash: '0.25 0.08' },
  'glass-partition': { width: 0.1, tone: 'var(--tarn)', double: true },
}

export function penFor(construction: string): Pen {
  return PENS[construction] ?? { width: 0.15, tone: 'var(--wall-light)' }
}

export function constructionsOf(catalogue: Catalogue | null, kinds: string[]) {
  return Object.values(catalogue?.constructions ?? {}).filter((c) => kinds.includes(c.kind))
}
