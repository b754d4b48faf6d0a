import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Tick, WorkList } from '@/api/types'
import { useDesign } from '@/document/store'
import { useOutbox, useWho } from '@/outbox/useOutbox'
import { standing } from './ticks'
import { useProgress } from './useProgress'

const TRY_AGAIN_MS = 4000

/** The work on site, with what was said of it here and is still to be sent. */
export function useWork() {
  const store = useDesign()
  const outbox = useOutbox()
  const progress = useProgress()
  const work = shallowRef<WorkList | null>(null)
  const unreached = ref(false)
  const who = useWho()
  const unsent = computed(() => outbox.waitingOf('ticks', store.id))
  const stands = computed(() => standing(work.value?.stands ?? [], unsent.value.map((e) => e.row)))
  const offline = computed(() => outbox.offline || unreached.value)
  const titleOf = (step: string) => work.value?.steps.find((s) => s.id === step)?.title ?? step
  const by = () => who.value.trim() || 'installer'

  async function load(): Promise<void> {
    const project_id = store.id
    try {
      const found = await taken(api.GET('/api/projects/{project_id}/work', { params: { path: { project_id } } }))
      if (project_id !== store.id) return
      work.value = found
      unreached.value = false
      // The copies kept for when the connection is gone are of one revision.
      void fetch(`/api/projects/${project_id}`).catch(() => undefined)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      unreached.value = error.isOffline
    }
  }

  /** Say how a step stands; false where this device has no room to keep it. */
  function say(words: Omit<Tick, 'key' | 'at' | 'by'>): boolean {
    const row = { ...words, key: crypto.randomUUID(), by: by(), at: new Date().toISOString() }
    return outbox.keep('ticks', store.id, store.name, titleOf(words.step), row)
  }

  const photograph = (step: string, picture: File) =>
    outbox.photograph(store.id, store.name, titleOf(step), { of: 'step', about: step, by: by() }, picture)

  outbox.onAnswered(({ project, stands: known }) => {
    if (!known || project !== store.id) return
    if (work.value) work.value = { ...work.value, stands: known }
    void progress.load()
  })
  watch(() => store.id, () => (work.value = null))
  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  useIntervalFn(() => void (work.value && !unreached.value ? undefined : load()), TRY_AGAIN_MS)
  useEventListener('online', () => void load())
  return { work, stands, offline, say, photograph }
}
