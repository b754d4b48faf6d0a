import { shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { WidthView } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

/** What each width of channels comes to on 5 GHz, while it is ``shown``. */
export function useWidths(shown: () => boolean) {
  const store = useDesign()
  const attempt = useAttempt()
  const widths = shallowRef<WidthView | null>(null)

  async function load(): Promise<void> {
    const params = { path: { project_id: store.id } }
    const found = await attempt(() => taken(api.GET('/api/projects/{project_id}/widths', { params })))
    if (found) widths.value = found
  }
  watch(() => [shown(), store.revision, store.id] as const, () => shown() && void load(), { immediate: true })
  return { widths }
}
