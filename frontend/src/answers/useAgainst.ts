import { computed, ref, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import { useDesign } from '@/document/store'

/** What the plan can be laid beside: its variants, and its own earlier revisions by what was done then. */
export interface Against {
  value: string
  label: string
  /** As the legend says it. */
  said: string
}

const MOST_REVISIONS = 40

export function useAgainst() {
  const store = useDesign()
  const earlier = ref<Against[]>([])
  const options = computed<Against[]>(() => [
    ...store.all('variant').map((v) => ({ value: `variant:${v.id}`, label: `With: ${v.name}`, said: `with “${v.name}” than as planned` })),
    ...earlier.value,
  ])

  async function load(): Promise<void> {
    const params = { path: { project_id: store.id } }
    try {
      // The journal's lines have no model of their own.
      const { history } = (await taken(api.GET('/api/projects/{project_id}/history', { params }))) as unknown as { history: { revision: number; label: string }[] }
      earlier.value = history.filter((h) => h.revision < store.revision).slice(0, MOST_REVISIONS)
        .map((h) => ({ value: `revision:${h.revision}`, label: `Since ${h.revision}: ${h.label}`, said: `than at revision ${h.revision}` }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
  }
  watch(() => [store.id, store.revision] as const, () => void load(), { immediate: true })
  return { options }
}
