import { shallowRef } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Change, Practice, Practices } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'

const known = shallowRef<Practices | null>(null)

/** Practice profiles: those that ship, the firm's own, and how the open plan goes about each matter. */
export function usePractices() {
  const store = useDesign()
  const { answer: view } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/practice', { params: { path: { project_id } } })))

  async function told(asked: Promise<Practices>): Promise<boolean> {
    try {
      known.value = await asked
      return true
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
      return false
    }
  }
  void told(taken(api.GET('/api/firm/practices')))
  const keep = (practice: Practice) => told(taken(api.PUT('/api/firm/practices/{key}', { params: { path: { key: practice.id } }, body: practice })))
  const drop = (key: string) => told(taken(api.DELETE('/api/firm/practices/{key}', { params: { path: { key } } })))

  /** Let this project alone go by a school. */
  async function go(matter: string, school: string, value: number | null, label: string): Promise<void> {
    try {
      const query = { matter, school, ...(value === null ? {} : { value }) }
      const found = await taken(api.GET('/api/projects/{project_id}/school', { params: { path: { project_id: store.id }, query } }))
      if (found.changes.length) store.commit(label.slice(0, 120), [...found.changes] as Change[])
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
  }
  return { known, view, keep, drop, go }
}
