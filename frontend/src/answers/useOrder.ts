import { ref, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Order } from '@/api/types'
import { useDesign } from '@/document/store'

/** What the plan as it is saved takes and costs; asked for again with every revision. */
export function useOrder() {
  const store = useDesign()
  const order = shallowRef<Order | null>(null)
  const failed = ref('')

  async function load(): Promise<void> {
    failed.value = ''
    try {
      order.value = await taken(api.GET('/api/projects/{project_id}/order', { params: { path: { project_id: store.id } } }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      failed.value = error.message
    }
  }

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { order, failed, load }
}
