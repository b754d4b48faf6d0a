import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Snag, SnagSaid } from '@/api/types'
import { useDesign } from '@/document/store'
import { useOutbox, useWho } from '@/outbox/useOutbox'
import { useProgress } from './useProgress'

/** A snag as it stands here: what the server knows, with what is still to be sent laid over it. */
export interface SnagHere extends Snag {
  unsent: boolean
}

/** Snags with what was said of them here and not sent yet; those that are open first. */
export function snagsHere(known: readonly Snag[], unsent: readonly SnagSaid[]): SnagHere[] {
  const found = new Map<string, SnagHere>(known.map((s) => [s.snag, { ...s, unsent: false }]))
  for (const said of unsent) {
    const before = found.get(said.snag)
    const photos = [...(before?.photos ?? []), ...(said.photo ? [said.photo] : [])]
    const at = said.at ?? ''
    if (said.state === null) {
      if (before) found.set(said.snag, { ...before, photos })
      continue
    }
    found.set(said.snag, {
      snag: said.snag, state: said.state ?? 'open', what: said.what ?? '', kind: said.kind ?? '', element: said.element ?? null,
      floor: said.floor ?? null, owner: said.owner ?? '', due: said.due ?? null, photos, clock_ahead_s: 0,
      seen_by: before?.seen_by ?? said.by, seen_at: before?.seen_at ?? at, said_by: said.by, said_at: at, late: before?.late ?? false, unsent: true,
    })
  }
  return [...found.values()].sort((a, b) => Number(a.state === 'closed') - Number(b.state === 'closed'))
}

/** What is left to mend; said on site, also without a connection. */
export function useSnags() {
  const store = useDesign()
  const outbox = useOutbox()
  const progress = useProgress()
  const who = useWho()
  const known = shallowRef<Snag[]>([])
  const unreached = ref(false)
  const offline = computed(() => outbox.offline || unreached.value)
  const snags = computed(() => snagsHere(known.value, outbox.waitingOf('snags', store.id).map((e) => e.row)))
  const by = () => who.value.trim() || 'installer'
  const words = (s: Snag) => ({ snag: s.snag, state: s.state, what: s.what, kind: s.kind, element: s.element, floor: s.floor, owner: s.owner, due: s.due, photo: null })

  /** Say how a snag stands; false where this device has no room to keep it. */
  function say(said: Omit<SnagSaid, 'key' | 'at' | 'by'>): boolean {
    const row = { ...said, key: crypto.randomUUID(), by: by(), at: new Date().toISOString() }
    return outbox.keep('snags', store.id, store.name, said.what ?? '', row)
  }

  const photograph = (snag: Snag, picture: File) =>
    outbox.photograph(store.id, store.name, snag.what, { of: 'snag', about: snag.snag, by: by() }, picture)

  async function load(): Promise<void> {
    const project_id = store.id
    try {
      const found = await taken(api.GET('/api/projects/{project_id}/snags', { params: { path: { project_id } } }))
      if (project_id !== store.id) return
      known.value = found.snags
      unreached.value = false
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      unreached.value = error.isOffline
    }
  }

  outbox.onAnswered(({ project, snags: answered }) => {
    if (!answered || project !== store.id) return
    known.value = answered
    void progress.load()
  })
  watch(() => store.id, () => {
    known.value = []
    void load()
  }, { immediate: true })
  return { snags, offline, say, words, photograph }
}
