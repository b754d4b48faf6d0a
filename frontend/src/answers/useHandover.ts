import { watch } from 'vue'
import { api, taken } from '@/api/client'
import { useDesign } from '@/document/store'
import { useWho } from '@/outbox/useOutbox'
import { useAttempt } from './useAttempt'
import { useBeside } from './useBeside'
import { useProgress } from './useProgress'

/** How the job would be handed over now, and what was agreed, handed over and signed. */
export function useHandover() {
  const store = useDesign()
  const attempt = useAttempt()
  const progress = useProgress()
  const who = useWho()
  const by = () => who.value.trim() || 'installer'
  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/handover', { params: { path: { project_id } } })))
  watch(view, (now) => now && void progress.load())

  async function sign(number: number, signed_by: string): Promise<void> {
    const params = { path: { project_id: store.id, number } }
    const signed = await attempt(() => taken(api.POST('/api/projects/{project_id}/handovers/{number}/signed', { params, body: { signed_by, by: by() } })))
    if (signed) view.value = signed
  }
  return { view, who, load, sign }
}
