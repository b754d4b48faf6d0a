/** How far a device's clock goes wrong, in words: "23 h ahead". */
export function clockOff(aheadS: number): string {
  const minutes = Math.abs(aheadS) / 60
  const span = minutes < 90 ? `${Math.round(minutes)} min` : minutes < 36 * 60 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} days`
  return `${span} ${aheadS > 0 ? 'ahead' : 'behind'}`
}
