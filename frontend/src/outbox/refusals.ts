import type { Problem } from '@/api/types'

/** Which rows of what was sent the server will not have, and why, as it says of each. */
export function refusedRows(problems: readonly Problem[], list: string): Map<number, string> {
  const found = new Map<number, string>()
  for (const { where, what } of problems) {
    const [, row, field] = /^(\w+\[\d+\])\.?(.*)$/.exec(where) ?? []
    const number = row?.startsWith(`${list}[`) ? Number(row.slice(list.length + 1, -1)) : NaN
    if (Number.isNaN(number)) continue
    const words = field ? `${field}: ${what}` : what
    found.set(number, found.has(number) ? `${found.get(number)}; ${words}` : words)
  }
  return found
}
