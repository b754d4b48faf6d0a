import { ref } from 'vue'
import { api, taken } from '@/api/client'
import { useBeside } from './useBeside'

/** What the plan as it is saved takes and costs; asked for again with every revision. */
export function useOrder() {
  const failed = ref('')
  const ask = (project_id: string) => {
    failed.value = ''
    return taken(api.GET('/api/projects/{project_id}/order', { params: { path: { project_id } } }))
  }
  const { answer: order, load } = useBeside(ask, { failed: (error) => (failed.value = error.message) })
  return { order, failed, load }
}
