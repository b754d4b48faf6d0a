import { ref, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { CableTestWords, TestedCable } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

/** What was tested of the cables; facts beside the plan, which undo does not touch. */
export function useCableTests() {
  const store = useDesign()
  const attempt = useAttempt()
  const cables = shallowRef<TestedCable[]>([])
  const busy = ref(false)
  const params = () => ({ path: { project_id: store.id } })

  async function show(work: () => Promise<{ cables: TestedCable[] }>): Promise<boolean> {
    busy.value = true
    try {
      const found = await attempt(work)
      if (found) cables.value = found.cables
      return found !== null
    } finally {
      busy.value = false
    }
  }
  const load = () => show(() => taken(api.GET('/api/projects/{project_id}/tests', { params: params() })))
  const add = (test: CableTestWords) =>
    show(() => taken(api.POST('/api/projects/{project_id}/tests', { params: params(), body: test })))

  // Planned lengths move with every edit that is saved.
  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { cables, busy, add }
}
