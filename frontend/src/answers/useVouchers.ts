import { ref } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { VouchersView } from '@/api/types'
import { useDesign } from '@/document/store'
import { printed } from './printed'
import { useBeside } from './useBeside'

/** The codes of vouchers: of which sets they are kept, and what is asked of them. None comes into the browser. */
export function useVouchers() {
  const store = useDesign()
  const said = ref('')
  const path = () => ({ path: { project_id: store.id } })
  const failed = (error: ApiError) => (said.value = error.message)
  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/vouchers', { params: { path: { project_id } } })), { failed })

  async function told(what: Promise<VouchersView>): Promise<void> {
    said.value = ''
    try {
      view.value = await what
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.words
    }
  }
  const make = (set: string) => told(taken(api.POST('/api/projects/{project_id}/vouchers/make', { params: path(), body: { set } })))
  const forget = (set: string) => told(taken(api.POST('/api/projects/{project_id}/vouchers/forget', { params: path(), body: { set } })))
  async function print(set: string): Promise<void> {
    const wrong = await printed(`/api/projects/${store.id}/vouchers/print`, 'vouchers.pdf', { set })
    said.value = wrong && `The slips were not printed: ${wrong}.`
    await load()
  }
  return { view, said, make, forget, print }
}
