import { useLocalStorage } from '@vueuse/core'
import { useWho } from '@/outbox/useOutbox'

/** Cautions that somebody has read today on this device, by who, day and words: each sentence once a day. */
export function useCautionsRead() {
  const who = useWho()
  const kept = useLocalStorage<{ day: string; read: string[] }>('cautions-read', { day: '', read: [] })
  const today = () => new Date().toDateString()
  const key = (words: string) => `${who.value.trim()}|${words}`
  const unread = (cautions: readonly string[]) => {
    const read = kept.value.day === today() ? new Set(kept.value.read) : new Set<string>()
    return cautions.filter((c) => !read.has(key(c)))
  }
  function read(cautions: readonly string[]): void {
    const before = kept.value.day === today() ? kept.value.read : []
    kept.value = { day: today(), read: [...new Set([...before, ...cautions.map(key)])] }
  }
  return { unread, read }
}
