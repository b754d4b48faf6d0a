import { createSharedComposable, useDebounceFn } from '@vueuse/core'
import { shallowRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Progress } from '@/api/types'
import { useDesign } from '@/document/store'

const CALM_MS = 1500

/** How far the work and the hand-over are, in a few numbers; asked for with every revision. */
export const useProgress = createSharedComposable(() => {
  const store = useDesign()
  const progress = shallowRef<Progress | null>(null)

  async function load(): Promise<void> {
    const id = store.id
    if (!id) return
    try {
      const found = await taken(api.GET('/api/projects/{project_id}/progress', { params: { path: { project_id: id } } }))
      if (store.id === id) progress.value = found
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    }
  }

  // Not with every edit of a flow of them: the figures of those come first.
  const loadLater = useDebounceFn(() => void load(), CALM_MS)
  watch(() => store.id, () => {
    progress.value = null
    void load()
  }, { immediate: true })
  watch(() => store.revision, () => void loadLater())
  return { progress, load }
})
