import type { FarPoint } from '@/api/types'

/** What a place on the land is, what power it has and what lies before it, in words. */
export const FAR_KINDS: { value: NonNullable<FarPoint['what']>; label: string }[] = [
  { value: 'outbuilding', label: 'Outbuilding' },
  { value: 'gate', label: 'Gate' },
  { value: 'pond', label: 'Pond' },
  { value: 'field', label: 'Field' },
  { value: 'car_park', label: 'Car park' },
  { value: 'tower', label: 'Tower' },
]
export const FAR_POWERS: { value: NonNullable<FarPoint['power']>; label: string }[] = [
  { value: 'none', label: 'None' },
  { value: 'socket', label: 'A socket of the same supply' },
  { value: 'own_supply', label: 'A supply of its own' },
]
export const LANDS: { value: NonNullable<FarPoint['land']>; label: string }[] = [
  { value: 'lawn', label: 'Lawn' },
  { value: 'paving', label: 'Paving' },
  { value: 'drive', label: 'Drive' },
  { value: 'water', label: 'Water' },
  { value: 'trees', label: 'Trees' },
]

/** How a way to a place is judged. */
export const STATES = { met: 'Holds', near: 'Near', out: 'Ruled out' }

/**
 * Rows of figures as they are typed or pasted, one to a line, parted by blanks, tabs, semicolons or commas; a row
 * of words, such as a table's head, is left aside.
 * What is wrong comes back in words, with its line.
 */
export function readRows(text: string, least: number, most: number): { rows: number[][] } | { wrong: string } {
  const rows: number[][] = []
  for (const [k, line] of text.split('\n').entries()) {
    // Where semicolons part the figures a comma is the decimals' own.
    const parts = (line.includes(';') ? line.replaceAll(',', '.') : line).replaceAll('\u2212', '-').trim().split(/[\s;,]+/).filter(Boolean)
    if (!parts.length || (k === 0 && parts.every((p) => Number.isNaN(Number(p))))) continue
    const figures = parts.map(Number)
    if (figures.some((f) => !Number.isFinite(f))) return { wrong: `Line ${k + 1}: “${parts.find((p) => !Number.isFinite(Number(p)))}” is no number; write 12.5, with a point` }
    if (figures.length < least || figures.length > most) return { wrong: `Line ${k + 1} has ${figures.length} figures; ${least === most ? least : `${least} to ${most}`} are wanted` }
    rows.push(figures)
  }
  return { rows }
}
