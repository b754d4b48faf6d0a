import { computed, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Snag, SnagSaid } from '@/api/types'
import { useDesign } from '@/document/store'
import { useProgress } from './useProgress'
import { usePhotos } from './usePhotos'
import { useUnsent, useWho } from './useUnsent'

/** A snag as it stands here: what the server knows, with what is still to be sent laid over it. */
export interface SnagHere extends Snag {
  unsent: boolean
}

/** Snags with what was said of them here and not sent yet; those that are open first. */
export function snagsHere(known: readonly Snag[], unsent: readonly SnagSaid[]): SnagHere[] {
  const found = new Map<string, SnagHere>(known.map((s) => [s.snag, { ...s, unsent: false }]))
  for (const said of unsent) {
    const before = found.get(said.snag)
    const at = said.at ?? ''
    if (before && Date.parse(before.said_at) > Date.parse(at)) continue
    found.set(said.snag, {
      snag: said.snag, state: said.state ?? 'open', what: said.what, kind: said.kind ?? '', element: said.element ?? null,
      floor: said.floor ?? null, owner: said.owner ?? '', due: said.due ?? null,
      photos: [...(before?.photos ?? []), ...(said.photo ? [said.photo] : [])],
      seen_by: before?.seen_by ?? said.by, seen_at: before?.seen_at ?? at, said_by: said.by, said_at: at, late: before?.late ?? false, unsent: true,
    })
  }
  return [...found.values()].sort((a, b) => Number(a.state === 'closed') - Number(b.state === 'closed'))
}

/** What is left to mend; said on site, also without a connection. */
export function useSnags() {
  const store = useDesign()
  const progress = useProgress()
  const who = useWho()
  const known = shallowRef<Snag[]>([])
  const params = () => ({ path: { project_id: store.id } })
  const { unsent, offline, keep } = useUnsent<SnagSaid>('snags', 'said', async (said) => {
    known.value = (await taken(api.POST('/api/projects/{project_id}/snags', { params: params(), body: { said } }))).snags
    void progress.load()
  })
  const snags = computed(() => snagsHere(known.value, unsent.value))
  const photos = usePhotos('snag', (snag, photo) => {
    const found = snags.value.find((s) => s.snag === snag)
    if (found) say({ ...words(found), photo })
  })

  const words = (s: Snag) => ({ snag: s.snag, state: s.state, what: s.what, kind: s.kind, element: s.element, floor: s.floor, owner: s.owner, due: s.due, photo: null })

  function say(said: Omit<SnagSaid, 'key' | 'at' | 'by'>): void {
    keep({ ...said, key: crypto.randomUUID(), by: who.value.trim() || 'installer', at: new Date().toISOString() })
  }

  async function load(): Promise<void> {
    try {
      known.value = (await taken(api.GET('/api/projects/{project_id}/snags', { params: params() }))).snags
      offline.value = false
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      offline.value = error.isOffline
    }
  }

  watch(() => store.id, () => void load(), { immediate: true })
  return { snags, offline, say, words, photograph: photos.photograph }
}
