import { computed, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Point, SpotView, View } from '@/api/types'
import { useBeside } from './useBeside'

/** A spot that was pressed on the sheet, and every ray to it explained; it follows band, storey and edits. */
export function useSpot(floor: () => string, band: () => View['band']) {
  const at = ref<Point | null>(null)
  const ask = (project_id: string) => {
    const [x, y] = at.value!
    return taken(api.GET('/api/projects/{project_id}/rays', { params: { path: { project_id }, query: { floor: floor(), x, y, band: band() } } }))
  }
  const { answer } = useBeside(ask, { wanted: () => !!at.value && !!floor(), about: () => [at.value, band()].join() })
  const spot = computed<SpotView | null>(() => (at.value ? answer.value : null))
  const device = ref('')
  const ray = computed(() => spot.value?.rays.find((r) => r.device === device.value) ?? spot.value?.rays[0] ?? null)

  watch(floor, () => (at.value = null))
  watch(at, (now) => now ?? (answer.value = null))
  return { at, spot, ray, device }
}
