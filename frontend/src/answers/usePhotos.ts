import { useEventListener, useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import { useDesign } from '@/document/store'

const KEPT = 'heathrise-photos'
const TRY_AGAIN_MS = 5000

/**
 * Photographs of a step or a snag: kept on this device first, sent when the server answers. What
 * is about ``name`` is told by ``noted`` once the picture is in the database.
 */
export function usePhotos(name: string, noted: (about: string, photo: string) => void) {
  const store = useDesign()
  const waiting = ref(0)
  const place = `/kept-photos/${store.id}/${name}/`
  let sending = false

  const kept = async () => {
    const cache = await caches.open(KEPT)
    const all = (await cache.keys()).filter((r) => new URL(r.url).pathname.startsWith(place))
    waiting.value = all.length
    return { cache, all }
  }

  async function photograph(about: string, photo: File): Promise<void> {
    const cache = await caches.open(KEPT)
    await cache.put(`${place}${crypto.randomUUID()}?about=${encodeURIComponent(about)}`, new Response(photo))
    await send()
  }

  async function send(): Promise<void> {
    if (sending) return
    sending = true
    try {
      const { cache, all } = await kept()
      for (const request of all) {
        const form = new FormData()
        form.append('picture', await (await cache.match(request))!.blob(), 'photo.jpg')
        const params = { path: { project_id: store.id } }
        const { id } = await taken(api.POST('/api/projects/{project_id}/pictures', { params, ...file(form) }))
        noted(new URL(request.url).searchParams.get('about') ?? '', id)
        await cache.delete(request)
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (!error.isOffline) await drop(error)
    } finally {
      sending = false
      await kept()
    }
  }

  /** The first of them is what the server will not have. */
  async function drop(error: ApiError): Promise<void> {
    store.trouble = { message: `The photograph was not kept. ${error.message}`, detail: [] }
    const { cache, all } = await kept()
    if (all[0]) await cache.delete(all[0])
  }

  void send()
  useIntervalFn(() => void (waiting.value && send()), TRY_AGAIN_MS)
  useEventListener('online', () => void send())
  return { waiting, photograph }
}
