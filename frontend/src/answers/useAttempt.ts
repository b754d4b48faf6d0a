import { ApiError } from '@/api/client'
import { useDesign } from '@/document/store'

/** What is asked of the server beside the design: what it brings, or null where it went wrong, which is told. */
export function useAttempt() {
  const store = useDesign()
  return async function attempt<T>(work: () => Promise<T>): Promise<T | null> {
    try {
      return await work()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
      return null
    }
  }
}
