import { onScopeDispose, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { BandView, View } from '@/api/types'
import { useDesign } from '@/document/store'

const SEARCH_AGAIN_MS = 900

/** The channels of a band as they are planned; for the access point selected, what each would cost it. */
export function useChannels(band: () => View['band'], device: () => string) {
  const store = useDesign()
  const view = shallowRef<BandView | null>(null)
  let later: ReturnType<typeof setTimeout> | undefined

  async function load(): Promise<void> {
    clearTimeout(later)
    const [wanted, whose] = [band(), device()]
    const params = { path: { project_id: store.id, band: wanted }, query: { device: whose } }
    try {
      const found = await taken(api.GET('/api/projects/{project_id}/channels/{band}', { params }))
      if (wanted !== band() || whose !== device()) return
      view.value = found
      if (found.searching) later = setTimeout(() => void load(), SEARCH_AGAIN_MS)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
  }
  watch(() => [band(), device(), store.revision, store.id] as const, () => void load(), { immediate: true })
  onScopeDispose(() => clearTimeout(later))
  return { view }
}
