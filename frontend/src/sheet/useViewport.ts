import { computed, ref } from 'vue'
import type { Point } from '@/api/types'
import { overlaps, type Box } from './boxes'

const LEAST = 0.02 // px to a metre: 10 km over half a sheet
const MOST = 220
const MARGIN_PX = 44

/** Where bounds in m stand when they fill a part of the sheet, and what they then cover. */
function within([west, south, east, north]: readonly [number, number, number, number], part: Box) {
  const wide = (part.right - part.left - 2 * MARGIN_PX) / Math.max(east - west, 1)
  const high = (part.bottom - part.top - 2 * MARGIN_PX) / Math.max(north - south, 1)
  const scale = Math.min(MOST, Math.max(LEAST, Math.min(wide, high)))
  const tx = (part.left + part.right - (west + east) * scale) / 2
  const ty = (part.top + part.bottom + (south + north) * scale) / 2
  const drawn = { left: tx + west * scale, right: tx + east * scale, top: ty - north * scale, bottom: ty - south * scale }
  return { scale, tx, ty, drawn }
}

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

  /**
   * Show bounds in m as large as they go in whichever part of the sheet the furniture at its foot
   * leaves clear: all of it where nothing is met, what is above the furniture, or beside the first.
   */
  function fit(bounds: readonly [number, number, number, number], furniture: readonly Box[] = []): void {
    const whole = { left: 0, top: 0, right: width.value, bottom: height.value }
    const legend = furniture[0]
    const parts = [whole]
    if (legend) {
      parts.push({ ...whole, bottom: Math.min(...furniture.map((f) => f.top)) })
      const others = Math.min(height.value, ...furniture.slice(1).map((f) => f.top))
      parts.push({ ...whole, left: legend.right, bottom: others })
    }
    const views = parts.map((part) => within(bounds, part)).filter((v) => !furniture.some((f) => overlaps(f, v.drawn)))
    const best = views.sort((a, b) => b.scale - a.scale)[0] ?? within(bounds, whole)
    scale.value = best.scale
    tx.value = best.tx
    ty.value = best.ty
  }

  return { scale, tx, ty, width, height, transform, toScreen, toWorld, zoomAt, pan, fit }
}

export type Viewport = ReturnType<typeof useViewport>
