import { ref, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { CableTestWords, TestedCable } from '@/api/types'
import { useDesign } from '@/document/store'

/** What was tested of the cables; facts beside the plan, which undo does not touch. */
export function useCableTests() {
  const store = useDesign()
  const cables = shallowRef<TestedCable[]>([])
  const busy = ref(false)
  const params = () => ({ path: { project_id: store.id } })

  async function attempt(work: () => Promise<{ cables: TestedCable[] }>): Promise<boolean> {
    busy.value = true
    try {
      cables.value = (await work()).cables
      return true
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
      return false
    } finally {
      busy.value = false
    }
  }

  const load = () => attempt(() => taken(api.GET('/api/projects/{project_id}/tests', { params: params() })))
  const add = (test: CableTestWords) =>
    attempt(() => taken(api.POST('/api/projects/{project_id}/tests', { params: params(), body: test })))

  // Planned lengths move with every edit that is saved.
  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { cables, busy, add }
}
