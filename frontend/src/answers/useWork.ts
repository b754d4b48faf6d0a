import { useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { Tick, WorkList } from '@/api/types'
import { useDesign } from '@/document/store'
import { standing, withoutSent } from './ticks'

const TRY_AGAIN_MS = 4000
const MOST_AT_ONCE = 100

/** The work on site. What is said of it is kept on this device first, and sent when the server answers. */
export function useWork() {
  const store = useDesign()
  const work = shallowRef<WorkList | null>(null)
  const offline = ref(false)
  const who = useLocalStorage('heathrise-who', '')
  const unsent = useLocalStorage<Tick[]>(`heathrise-ticks-${store.id}`, [], { flush: 'sync' })
  const stands = computed(() => standing(work.value?.stands ?? [], unsent.value))
  const params = () => ({ path: { project_id: store.id } })
  let sending = false

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
    const tick = { ...words, key: crypto.randomUUID(), by: who.value.trim() || 'installer', at: new Date().toISOString() }
    unsent.value = [...unsent.value, tick]
    void send()
  }

  async function send(): Promise<void> {
    if (sending || !unsent.value.length) return
    sending = true
    const ticks = unsent.value.slice(0, MOST_AT_ONCE)
    try {
      const { stands: known } = await taken(api.POST('/api/projects/{project_id}/work', { params: params(), body: { ticks } }))
      if (work.value) work.value = { ...work.value, stands: known }
      unsent.value = withoutSent(unsent.value, ticks)
      offline.value = false
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      offline.value = error.isOffline
      // What the server will not have is told and left aside; all else of it goes on its own.
      if (!error.isOffline) refuse(ticks, error)
    } finally {
      sending = false
    }
    if (unsent.value.length && !offline.value) void send()
  }

  function refuse(ticks: Tick[], error: ApiError): void {
    const wrong = new Set(error.problems.map((p) => Number(/^ticks\[(\d+)\]/.exec(p.where)?.[1] ?? NaN)))
    const refused = ticks.filter((_, k) => wrong.has(k))
    unsent.value = withoutSent(unsent.value, refused.length ? refused : ticks)
    store.trouble = { message: error.message, detail: [] }
  }

  /** Keep a photograph; it needs the server, and what is noted without one does not wait for it. */
  async function keepPhoto(photo: File): Promise<string | null> {
    const form = new FormData()
    form.append('picture', photo)
    try {
      return (await taken(api.POST('/api/projects/{project_id}/pictures', { params: params(), ...file(form) }))).id
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: `The photograph was not kept. ${error.message}`, detail: [] }
      return null
    }
  }

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  useIntervalFn(() => void (work.value ? send() : load()), TRY_AGAIN_MS)
  useEventListener('online', () => void load())
  return { work, stands, unsent, offline, who, say, keepPhoto }
}
