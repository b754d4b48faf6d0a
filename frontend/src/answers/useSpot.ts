import { computed, ref, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Point, SpotView, View } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

/** A spot that was pressed on the sheet, and every ray to it explained; it follows band, storey and edits. */
export function useSpot(floor: () => string, band: () => View['band']) {
  const store = useDesign()
  const attempt = useAttempt()
  const at = ref<Point | null>(null)
  const spot = shallowRef<SpotView | null>(null)
  const device = ref('')
  const ray = computed(() => spot.value?.rays.find((r) => r.device === device.value) ?? spot.value?.rays[0] ?? null)

  async function load(): Promise<void> {
    if (!at.value || !floor()) {
      spot.value = null
      return
    }
    const query = { floor: floor(), x: at.value[0], y: at.value[1], band: band() }
    const found = await attempt(() => taken(api.GET('/api/projects/{project_id}/rays', { params: { path: { project_id: store.id }, query } })))
    if (found) spot.value = found
  }

  watch(floor, () => (at.value = null))
  watch(() => [at.value, band(), store.revision] as const, () => void load())
  return { at, spot, ray, device }
}
