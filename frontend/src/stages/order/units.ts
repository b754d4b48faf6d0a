/** A unit beside its number. */
export function units(unit: string, count: number): string {
  if (count === 1 || unit === 'm') return unit
  return unit === 'box' ? 'boxes' : `${unit}s`
}
