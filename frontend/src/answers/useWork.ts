import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Tick, WorkList } from '@/api/types'
import { useDesign } from '@/document/store'
import { useProgress } from './useProgress'
import { standing } from './ticks'
import { usePhotos } from './usePhotos'
import { useUnsent, useWho } from './useUnsent'

const TRY_AGAIN_MS = 4000

/** The work on site. What is said of it is kept on this device first, and sent when the server answers. */
export function useWork() {
  const store = useDesign()
  const progress = useProgress()
  const work = shallowRef<WorkList | null>(null)
  const who = useWho()
  const params = () => ({ path: { project_id: store.id } })
  const { unsent, offline, keep, send } = useUnsent<Tick>('ticks', 'ticks', async (ticks) => {
    const { stands: known } = await taken(api.POST('/api/projects/{project_id}/work', { params: params(), body: { ticks } }))
    if (work.value) work.value = { ...work.value, stands: known }
    void progress.load()
  })
  const stands = computed(() => standing(work.value?.stands ?? [], unsent.value))
  const photos = usePhotos('step', (step, photo) => {
    const { state, reason, note, licensed_by, minutes } = stands.value.get(step) ?? { state: 'open' as const, reason: '', note: '', licensed_by: '', minutes: null }
    say({ step, state, reason, note, licensed_by, minutes, photo })
  })

  async function load(): Promise<void> {
    try {
      work.value = await taken(api.GET('/api/projects/{project_id}/work', { params: params() }))
      // The copies kept for when the connection is gone are of one revision.
      void fetch(`/api/projects/${store.id}`).catch(() => undefined)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      offline.value = error.isOffline
    }
    await send()
  }

  function say(words: Omit<Tick, 'key' | 'at' | 'by'>): void {
    keep({ ...words, key: crypto.randomUUID(), by: who.value.trim() || 'installer', at: new Date().toISOString() })
  }

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  useIntervalFn(() => void (work.value || load()), TRY_AGAIN_MS)
  useEventListener('online', () => void load())
  return { work, stands, unsent, offline, say, photograph: photos.photograph, waitingPhotos: photos.waiting }
}
