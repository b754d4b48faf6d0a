import { shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { HandoverView } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'
import { useProgress } from './useProgress'
import { useWho } from '@/outbox/useOutbox'

/** How the job would be handed over now, and what was agreed, handed over and signed. */
export function useHandover() {
  const store = useDesign()
  const attempt = useAttempt()
  const progress = useProgress()
  const who = useWho()
  const view = shallowRef<HandoverView | null>(null)
  const params = () => ({ path: { project_id: store.id } })
  const by = () => who.value.trim() || 'installer'

  async function show(work: () => Promise<HandoverView>): Promise<void> {
    const found = await attempt(work)
    if (!found) return
    view.value = found
    void progress.load()
  }
  const load = () => show(() => taken(api.GET('/api/projects/{project_id}/handover', { params: params() })))
  const sign = (number: number, signed_by: string) =>
    show(() => taken(api.POST('/api/projects/{project_id}/handovers/{number}/signed', { params: { path: { project_id: store.id, number } }, body: { signed_by, by: by() } })))

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { view, who, load, sign }
}
