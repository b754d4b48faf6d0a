import { computed, shallowRef } from 'vue'
import type { SectionView } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length, signed } from '@/document/units'

const STEP_M = 0.05
const LEAST_CEILING_M = 1.6
const MOVED_PX = 3

type Storey = SectionView['storeys'][number]
interface Section {
  view: () => SectionView | null
  scale: () => number
  align: (floor: string, by_m: number) => void
}

/** Heights and storeys in the hand: a ceiling, the floor itself with all above it, a storey along the cut. */
export function useSectionHand(section: Section) {
  const store = useDesign()
  const held = shallowRef<{ storey: Storey; what: 'floor' | 'ceiling' | 'along'; x: number; y: number; by_m: number } | null>(null)

  function grab(storey: Storey, what: 'floor' | 'ceiling' | 'along', event: PointerEvent): void {
    held.value = { storey, what, x: event.clientX, y: event.clientY, by_m: 0 }
    ;(event.currentTarget as Element).closest('svg')?.setPointerCapture(event.pointerId)
  }

  function move(event: PointerEvent): void {
    const hand = held.value
    if (!hand) return
    const px = hand.what === 'along' ? event.clientX - hand.x : hand.y - event.clientY
    if (Math.abs(px) < MOVED_PX && !hand.by_m) return
    const by_m = Math.round(px / section.scale() / STEP_M) * STEP_M
    const least = hand.what === 'ceiling' ? LEAST_CEILING_M - hand.storey.ceiling_m : -Infinity
    held.value = { ...hand, by_m: Number(Math.max(by_m, least).toFixed(2)) }
  }

  function drop(): void {
    const hand = held.value
    held.value = null
    if (!hand?.by_m) return
    const { storey, what, by_m } = hand
    if (what === 'along') return section.align(storey.floor, by_m)
    const floor = store.find('floor', storey.floor)
    if (!floor) return
    const label = `Height of ${floor.name}`
    if (what === 'ceiling') return store.commit(label, [put('floor', { ...floor, ceiling_height_m: round(floor.ceiling_height_m + by_m) })])
    // What stands on it is lifted with it.
    const above = store.all('floor').filter((f) => f.building === floor.building && f.level >= floor.level)
    store.commit(label, above.map((f) => put('floor', { ...f, elevation_m: round(f.elevation_m + by_m) })))
  }

  const round = (m: number) => Number(m.toFixed(3))
  const told = computed(() => {
    const hand = held.value
    if (!hand?.by_m) return ''
    const { storey, what, by_m } = hand
    if (what === 'ceiling') return `${storey.name}: ceiling ${length(storey.ceiling_m + by_m, 2)}`
    if (what === 'floor') return `${storey.name} at ${length(storey.elevation_m + by_m, 2)}, with all above it`
    return `${storey.name} ${signed(by_m, 2)} along the cut`
  })

  return { held, told, grab, move, drop, cancel: () => (held.value = null) }
}
