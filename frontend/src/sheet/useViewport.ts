import { computed, ref } from 'vue'
import type { Point } from '@/api/types'

const LEAST = 2
const MOST = 220

/** Where the sheet looks: pixels to the metre, and the pixel at which the site's zero lies. */
export function useViewport() {
  const scale = ref(18)
  const tx = ref(60)
  const ty = ref(560)
  const width = ref(800)
  const height = ref(600)

  const transform = computed(
    () => `translate(${tx.value} ${ty.value}) scale(${scale.value} ${-scale.value})`,
  )

  function toScreen(point: readonly number[]): Point {
    return [tx.value + point[0]! * scale.value, ty.value - point[1]! * scale.value]
  }

  function toWorld(x: number, y: number): Point {
    return [(x - tx.value) / scale.value, (ty.value - y) / scale.value]
  }

  function zoomAt(x: number, y: number, factor: number): void {
    const [wx, wy] = toWorld(x, y)
    scale.value = Math.min(MOST, Math.max(LEAST, scale.value * factor))
    tx.value = x - wx * scale.value
    ty.value = y + wy * scale.value
  }

  function pan(dx: number, dy: number): void {
    tx.value += dx
    ty.value += dy
  }

  function fit(bounds: [number, number, number, number], margin = 56): void {
    const [west, south, east, north] = bounds
    const wide = (width.value - 2 * margin) / Math.max(east - west, 1)
    const high = (height.value - 2 * margin) / Math.max(north - south, 1)
    scale.value = Math.min(MOST, Math.max(LEAST, Math.min(wide, high)))
    tx.value = (width.value - (west + east) * scale.value) / 2
    // Spare height goes below, where the legend stands.
    const spare = Math.max(0, height.value - (north - south) * scale.value - 2 * margin)
    ty.value = (height.value - spare * 0.75 + (south + north) * scale.value) / 2
  }

  return { scale, tx, ty, width, height, transform, toScreen, toWorld, zoomAt, pan, fit }
}

export type Viewport = ReturnType<typeof useViewport>
