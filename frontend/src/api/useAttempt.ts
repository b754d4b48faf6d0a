import { ref } from 'vue'
import { ApiError } from './client'

/** Do things with the server, and say in words why the last of them could not be done. */
export function useAttempt() {
  const wrong = ref('')

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    wrong.value = ''
    try {
      await work()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      wrong.value = error.words
    }
  }

  return { wrong, attempt }
}
