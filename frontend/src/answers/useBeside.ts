import { shallowRef, watch } from 'vue'
import { ApiError } from '@/api/client'
import { useDesign } from '@/document/store'

interface Asking {
  /** Whether it is asked at all just now. */
  wanted?: () => boolean
  /** What else it is about: asked anew where this changes. */
  about?: () => unknown
  /** Who is told that it went wrong; without one the whole page says so. */
  failed?: (error: ApiError) => void
}

/** What is asked of the server beside the design: anew with every revision, and of answers that overtake each other the last alone counts. */
export function useBeside<T>(ask: (project_id: string) => Promise<T>, { wanted = () => true, about = () => '', failed }: Asking = {}) {
  const store = useDesign()
  const answer = shallowRef<T | null>(null)
  let asked = 0

  async function load(): Promise<T | null> {
    const mine = ++asked
    const project = store.id
    if (!project) return null
    try {
      const found = await ask(project)
      if (mine !== asked || project !== store.id) return null
      return (answer.value = found)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (mine !== asked || project !== store.id) return null
      if (failed) failed(error)
      else store.trouble = { message: error.message, detail: [] }
      return null
    }
  }

  watch(() => store.id, () => (answer.value = null))
  watch(() => [wanted(), store.id, store.revision, about()] as const, ([now]) => void (now && load()), { immediate: true })
  return { answer, load }
}
