import { createSharedComposable, useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { ref } from 'vue'
import { ApiError } from '@/api/client'
import { useDesign } from '@/document/store'

const TRY_AGAIN_MS = 4000
const MOST_AT_ONCE = 100

/** What is left to be sent once some was: what was said meanwhile stays. */
export function withoutSent<T extends { key: string }>(unsent: readonly T[], sent: readonly T[]): T[] {
  const keys = new Set(sent.map((t) => t.key))
  return unsent.filter((t) => !keys.has(t.key))
}

/**
 * What is said on site: kept on this device first, and sent when the server answers. The server
 * writes each key once; ``field`` is what it calls the list when it says which row is wrong.
 */
export function useUnsent<T extends { key: string }>(name: string, field: string, post: (rows: T[]) => Promise<void>) {
  const store = useDesign()
  const unsent = useLocalStorage<T[]>(`heathrise-${name}-${store.id}`, [], { flush: 'sync' })
  const offline = ref(false)
  let sending = false

  async function send(): Promise<void> {
    if (sending || !unsent.value.length) return
    sending = true
    const rows = unsent.value.slice(0, MOST_AT_ONCE)
    try {
      await post(rows)
      unsent.value = withoutSent(unsent.value, rows)
      offline.value = false
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      offline.value = error.isOffline
      // What the server will not have is told and left aside; all else of it goes on its own.
      if (!error.isOffline) refuse(rows, error)
    } finally {
      sending = false
    }
    if (unsent.value.length && !offline.value) void send()
  }

  function refuse(rows: T[], error: ApiError): void {
    const where = new RegExp(`^${field}\\[(\\d+)\\]`)
    const wrong = new Set(error.problems.map((p) => Number(where.exec(p.where)?.[1] ?? NaN)))
    const refused = rows.filter((_, k) => wrong.has(k))
    unsent.value = withoutSent(unsent.value, refused.length ? refused : rows)
    store.trouble = { message: error.message, detail: [] }
  }

  function keep(row: T): void {
    unsent.value = [...unsent.value, row]
    void send()
  }

  useIntervalFn(() => void send(), TRY_AGAIN_MS)
  useEventListener('online', () => void send())
  return { unsent, offline, keep, send }
}

/** Who speaks, on this device. */
export const useWho = createSharedComposable(() => useLocalStorage('heathrise-who', ''))
