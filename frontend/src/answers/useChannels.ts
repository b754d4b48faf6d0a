import { onScopeDispose, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { BandView, View } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

const SEARCH_AGAIN_MS = 900

/** The channels of a band as they are planned; for the access point selected, what each would cost it. */
export function useChannels(band: () => View['band'], device: () => string) {
  const store = useDesign()
  const attempt = useAttempt()
  const view = shallowRef<BandView | null>(null)
  let later: ReturnType<typeof setTimeout> | undefined

  async function load(): Promise<void> {
    clearTimeout(later)
    const [wanted, whose] = [band(), device()]
    const params = { path: { project_id: store.id }, query: { band: wanted, device: whose } }
    const found = await attempt(() => taken(api.GET('/api/projects/{project_id}/channels', { params })))
    if (!found || wanted !== band() || whose !== device()) return
    view.value = found
    if (found.searching) later = setTimeout(() => void load(), SEARCH_AGAIN_MS)
  }
  watch(() => [band(), device(), store.revision, store.id] as const, () => void load(), { immediate: true })
  onScopeDispose(() => clearTimeout(later))
  return { view }
}
