import { onScopeDispose, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { View } from '@/api/types'
import { useBeside } from './useBeside'

const SEARCH_AGAIN_MS = 900

/** The channels of a band as they are planned; for the access point selected, what each would cost it. */
export function useChannels(band: () => View['band'], device: () => string) {
  let later: ReturnType<typeof setTimeout> | undefined
  const ask = (project_id: string) => taken(api.GET('/api/projects/{project_id}/channels', { params: { path: { project_id }, query: { band: band(), device: device() } } }))
  const { answer: view, load } = useBeside(ask, { about: () => `${band()} ${device()}` })
  watch(view, (now) => {
    clearTimeout(later)
    if (now?.searching) later = setTimeout(() => void load(), SEARCH_AGAIN_MS)
  })
  onScopeDispose(() => clearTimeout(later))
  return { view }
}
