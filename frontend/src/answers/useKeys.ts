import { computed, ref } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { KeyTold, KeysView } from '@/api/types'
import { useDesign } from '@/document/store'
import { printed } from './printed'
import { useBeside } from './useBeside'

/** Give the controller every key that it lacks; returns what went wrong, in words. */
export async function sendKeys(project_id: string): Promise<string> {
  const found = await taken(api.POST('/api/projects/{project_id}/keys/send', { params: { path: { project_id } } }))
  return found.wrong.join(' · ')
}

/** Keys of the names and the account: which are kept, and what is asked of them. A key itself is only ever in what `show` answers. */
export function useKeys() {
  const store = useDesign()
  const said = ref('')
  const path = () => ({ path: { project_id: store.id } })
  const failed = (error: ApiError) => (said.value = error.message)
  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/keys', { params: { path: { project_id } } })), { failed })
  const rows = computed(() => view.value?.rows ?? [])

  async function asked<T>(what: Promise<T>): Promise<T | null> {
    said.value = ''
    try {
      return await what
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.words
      return null
    }
  }
  async function told(what: Promise<KeysView>): Promise<boolean> {
    const found = await asked(what)
    if (found) view.value = found
    return found !== null
  }
  const make = (of: string, shape: 'words' | 'characters') => told(taken(api.POST('/api/projects/{project_id}/keys/make', { params: path(), body: { of, shape } })))
  const type = (of: string, key: string) => told(taken(api.PUT('/api/projects/{project_id}/keys', { params: path(), body: { of, key } })))
  const forget = (of: string) => told(taken(api.POST('/api/projects/{project_id}/keys/forget', { params: path(), body: { of } })))
  async function show(of: string): Promise<KeyTold | null> {
    const found = await asked(taken(api.POST('/api/projects/{project_id}/keys/show', { params: path(), body: { of } })))
    if (found) await load()
    return found
  }
  /** Print the sealed copy; the paper is kept nowhere. */
  async function printSealed(): Promise<void> {
    const wrong = await printed(`/api/projects/${store.id}/keys/sealed`, 'sealed.pdf')
    said.value = wrong && `The sealed copy was not printed: ${wrong}.`
    await load()
  }
  return { view, rows, said, make, type, forget, show, printSealed }
}
