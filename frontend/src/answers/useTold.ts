import { ref } from 'vue'
import { ApiError } from '@/api/client'

/** What is asked of the server beside the design, where what went wrong is told beside its button: what it brings, or null. */
export function useTold() {
  const wrong = ref('')
  const busy = ref(0)
  async function told<T>(asked: Promise<T>): Promise<T | null> {
    busy.value += 1
    wrong.value = ''
    try {
      return await asked
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      wrong.value = error.message
      return null
    } finally {
      busy.value -= 1
    }
  }
  return { wrong, busy, told }
}
