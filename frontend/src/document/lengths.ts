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
