import type { SiteView } from '@/api/types'

type Gap = SiteView['gaps'][number]

/** What is measured between buildings: from the one that is chosen, else between all that see one another. */
export function measuredGaps(gaps: readonly Gap[], building: string | null): Gap[] {
  return gaps.filter((g) => (building ? [g.first, g.second].includes(building) : g.clear && nearest(gaps, g)) && g.gap_m > 0)
}

/** Whether no third building is nearer to both: what lies beyond a neighbour is not measured to. */
function nearest(gaps: readonly Gap[], g: Gap): boolean {
  return !gaps.some((h) => {
    const third = h.first === g.first ? h.second : h.second === g.first ? h.first : null
    const other = third && gaps.find((k) => [k.first, k.second].includes(third) && [k.first, k.second].includes(g.second))
    return third && third !== g.second && other && h.gap_m < g.gap_m && other.gap_m < g.gap_m
  })
}
