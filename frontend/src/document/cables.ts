import type { Catalogue, RunVerdict } from '@/api/types'

type Sheet = NonNullable<RunVerdict['fibre']>

/** What a link is pulled in: so many of a category, or a kind of fibre. */
export function cableSaid(link: { medium?: string; category: string; cables: number }, catalogue?: Catalogue | null): string {
  if (link.medium === 'fibre') return catalogue?.fibres[link.category]?.label ?? `fibre, ${link.category.toUpperCase()}`
  return `${link.cables} × category ${link.category}`
}

/** What becomes of a fibre's strands. */
export const strandsSaid = (sheet: Sheet): string =>
  `${sheet.strands}: ${sheet.used} used, ${sheet.spliced - sheet.used} ready, ${sheet.strands - sheet.spliced} dark`
