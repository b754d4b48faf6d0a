import { computed } from 'vue'
import { api, taken } from '@/api/client'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'

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
  // The journal's lines have no model of their own.
  type History = { history: { revision: number; label: string }[] }
  const ask = async (project_id: string) => (await taken(api.GET('/api/projects/{project_id}/history', { params: { path: { project_id } } }))) as unknown as History
  const { answer } = useBeside(ask, { wanted })
  const earlier = computed<Against[]>(() => (answer.value?.history ?? []).filter((h) => h.revision < store.revision).slice(0, MOST_REVISIONS)
    .map((h) => ({ value: `revision:${h.revision}`, label: `Since ${h.revision}: ${h.label}`, said: `than at revision ${h.revision}` })))
  const options = computed<Against[]>(() => [
    ...store.all('variant').map((v) => ({ value: `variant:${v.id}`, label: `With: ${v.name}`, said: `with “${v.name}” than as planned` })),
    ...earlier.value,
  ])

  return { options }
}
