import type { Looking } from './looking'

/** A press says where the air was scanned, to the centimetre. */
export function scan([x, y]: readonly [number, number], { scanned }: Looking): true {
  scanned.value = [Number(x.toFixed(2)), Number(y.toFixed(2))]
  return true
}
