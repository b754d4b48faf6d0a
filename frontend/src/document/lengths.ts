import { fromShown } from './units'

const METRES_PER_FOOT = 0.3048
const METRES_PER_INCH = 0.0254
const METRIC: Record<string, number> = { m: 1, cm: 0.01, mm: 0.001 }
const NUMBER = String.raw`\d+(?:[.,]\d+)?`
const INCHES = String.raw`(\d+(?:[.,]\d+)?)?(?:\s*(\d+)\s*/\s*(\d+))?`
const FEET_AND_INCHES = new RegExp(`^(\\d+(?:[.,]\\d+)?)\\s*(?:'|ft|feet|foot)\\s*-?\\s*(?:${INCHES}\\s*(?:"|''|in|inch|inches)?)?$`)
const DASHED = new RegExp(`^(\\d+)\\s*-\\s*${INCHES}\\s*(?:"|in)?$`)
const ONLY_INCHES = new RegExp(`^${INCHES}\\s*(?:"|''|in|inch|inches)$`)
const PLAIN = new RegExp(`^(${NUMBER})\\s*(mm|cm|m)?$`)

const number = (text: string | undefined) => (text ? Number(text.replace(',', '.')) : 0)

function inches(whole?: string, over?: string, under?: string): number {
  return number(whole) + (over && Number(under) ? Number(over) / Number(under) : 0)
}

/**
 * A length as people write it, in metres: 3.5, 3,5 m, 350 cm, 12' 6", 12-6, 12 ft 6 1/2 in.
 * A bare number is in the units of the switch. Null where it cannot be read.
 */
export function readLength(written: string): number | null {
  const text = written.trim().toLowerCase().replace(/[′’]/g, "'").replace(/[″”]/g, '"')
  const feet = FEET_AND_INCHES.exec(text) ?? DASHED.exec(text)
  if (feet) return positive(number(feet[1]) * METRES_PER_FOOT + inches(feet[2], feet[3], feet[4]) * METRES_PER_INCH)
  const small = ONLY_INCHES.exec(text)
  if (small) return positive(inches(small[1], small[2], small[3]) * METRES_PER_INCH)
  const plain = PLAIN.exec(text)
  if (!plain) return null
  return positive(plain[2] ? number(plain[1]) * METRIC[plain[2]]! : fromShown(number(plain[1])))
}

function positive(metres: number): number | null {
  return metres > 0 ? metres : null
}

/**
 * A length, and where one is said an angle clockwise from north: 4.2, 4.2 90, 12' 6" 90°, 3.5 m 45.
 * Null where it cannot be read.
 */
export function readLengthAndAngle(written: string): { metres: number; angle?: number } | null {
  const text = written.trim()
  const alone = readLength(text)
  if (alone !== null) return { metres: alone }
  const parts = /^(.*?)[\s,;∠]+(-?\d+(?:[.,]\d+)?)\s*°?$/.exec(text)
  const metres = parts && readLength(parts[1]!)
  return parts && metres ? { metres, angle: Number(parts[2]!.replace(',', '.')) } : null
}

/** Two lengths: 4.2 3.5, 4.2 x 3.5, 12' x 9' 6". Null where they cannot be read. */
export function readTwoLengths(written: string): [number, number] | null {
  const parts = written.trim().split(/\s*[;x×]\s*/i)
  const [a, b, ...more] = parts.length > 1 ? parts : written.trim().split(/\s+/)
  const read = [a, b].map((p) => (p ? readLength(p) : null))
  return more.length || read.some((m) => m === null) ? null : (read as [number, number])
}
