import { computed, shallowRef } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { RevisionDifference } from '@/api/types'
import type { useDesign } from './store'

/** Two states of the plan that are laid beside each other on the sheet and at its foot. */
const held = shallowRef<{ project: string; from: number; to: number | null; words: string; found: RevisionDifference } | null>(null)

export function useCompared(store: ReturnType<typeof useDesign>) {
  const compared = computed(() => (held.value?.project === store.id ? held.value : null))

  /** Lay an earlier revision beside a later one, or beside the plan as it is; returns what went wrong. */
  async function compare(from: number, to: number | null, words: string): Promise<string> {
    try {
      await store.flush()
      const project_id = store.id
      const query = to === null ? {} : { to }
      const found = await taken(api.GET('/api/projects/{project_id}/revisions/{number}/difference', { params: { path: { project_id, number: from }, query } }))
      held.value = { project: project_id, from, to, words, found }
      return ''
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      return error.words
    }
  }

  return { compared, compare, letGo: () => (held.value = null) }
}
