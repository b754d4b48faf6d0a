import { shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { HandoverView } from '@/api/types'
import { useDesign } from '@/document/store'
import { useProgress } from './useProgress'
import { useWho } from './useUnsent'

/** How the job would be handed over now, and what was agreed, handed over and signed. */
export function useHandover() {
  const store = useDesign()
  const progress = useProgress()
  const who = useWho()
  const view = shallowRef<HandoverView | null>(null)
  const params = () => ({ path: { project_id: store.id } })
  const by = () => who.value.trim() || 'installer'

  async function attempt(work: () => Promise<HandoverView>): Promise<void> {
    try {
      view.value = await work()
      void progress.load()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
  }

  const load = () => attempt(() => taken(api.GET('/api/projects/{project_id}/handover', { params: params() })))
  const sign = (number: number, signed_by: string) =>
    attempt(() => taken(api.POST('/api/projects/{project_id}/handovers/{number}/signed', { params: { path: { project_id: store.id, number } }, body: { signed_by, by: by() } })))

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { view, who, load, sign }
}
