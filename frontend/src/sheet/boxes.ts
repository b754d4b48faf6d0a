/** A rectangle in pixels. */
export interface Box {
  left: number
  top: number
  right: number
  bottom: number
}

export function overlaps(a: Box, b: Box): boolean {
  return a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
}
