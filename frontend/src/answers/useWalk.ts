import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { View, Walk, WalkPoint } from '@/api/types'
import { useDesign } from '@/document/store'

/** A path that is walked with a call; it stays on this device, and what becomes of it follows every edit. */
export function useWalk(band: () => View['band']) {
  const store = useDesign()
  const points = useLocalStorage<WalkPoint[]>(`heathrise-walk-${store.id}`, [])
  const drawing = ref(false)
  const walk = shallowRef<Walk | null>(null)
  /** Seconds into the walk that are looked at. */
  const moment = ref(0)
  const here = computed(() => {
    const samples = walk.value?.samples ?? []
    return samples[Math.min(samples.length - 1, Math.round(moment.value / 0.5))] ?? null
  })

  async function load(): Promise<void> {
    const known = points.value.filter((p) => store.find('floor', p.floor))
    if (known.length < 2) {
      walk.value = null
      return
    }
    const params = { path: { project_id: store.id } }
    try {
      walk.value = await taken(api.POST('/api/projects/{project_id}/walk', { params, body: { points: known, band: band() } }))
      moment.value = Math.min(moment.value, walk.value.seconds)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
  }

  function add(point: WalkPoint): void {
    const last = points.value.at(-1)
    // From one storey to the next one climbs where one stands, then walks on.
    const climb = last && last.floor !== point.floor ? [{ floor: point.floor, at: last.at }] : []
    points.value = [...points.value, ...climb, point]
  }

  watch(() => [points.value, band(), store.revision] as const, () => void load(), { immediate: true })
  return { points, drawing, walk, moment, here, add }
}
