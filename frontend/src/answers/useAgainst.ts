import { computed, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

/** What the plan can be laid beside: its variants, and its own earlier revisions by what was done then. */
export interface Against {
  value: string
  label: string
  /** As the legend says it. */
  said: string
}

const MOST_REVISIONS = 40

/** Its revisions are asked for while they are ``wanted``. */
export function useAgainst(wanted: () => boolean) {
  const store = useDesign()
  const attempt = useAttempt()
  const earlier = ref<Against[]>([])
  const options = computed<Against[]>(() => [
    ...store.all('variant').map((v) => ({ value: `variant:${v.id}`, label: `With: ${v.name}`, said: `with “${v.name}” than as planned` })),
    ...earlier.value,
  ])

  async function load(): Promise<void> {
    const params = { path: { project_id: store.id } }
    // The journal's lines have no model of their own.
    const found = (await attempt(() => taken(api.GET('/api/projects/{project_id}/history', { params })))) as unknown as { history: { revision: number; label: string }[] } | null
    if (!found) return
    earlier.value = found.history.filter((h) => h.revision < store.revision).slice(0, MOST_REVISIONS)
      .map((h) => ({ value: `revision:${h.revision}`, label: `Since ${h.revision}: ${h.label}`, said: `than at revision ${h.revision}` }))
  }
  watch(() => [wanted(), store.id, store.revision] as const, () => wanted() && void load(), { immediate: true })
  return { options }
}
