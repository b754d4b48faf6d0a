import { shallowRef } from 'vue'
import { api, file as asFile, taken } from '@/api/client'
import type { Point, Proposed } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'
import { useBeside } from './useBeside'

/** A file of a walk that waits for its radios to be confirmed. */
export interface Waiting {
  file: Blob
  proposed: Proposed[]
  read: number
}

/** What was measured beside the plan: walks that are read in, and the model fitted to them. */
export function useMeasured(floor: () => string, spot: () => Point | null) {
  const store = useDesign()
  const attempt = useAttempt()
  const waiting = shallowRef<Waiting | null>(null)
  const faults = shallowRef<string[]>([])

  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/calibration', { params: { path: { project_id } } })))

  async function send(file: Blob, names: Record<string, string> | null): Promise<void> {
    const at = spot() ? { x: spot()![0], y: spot()![1] } : {}
    const query = { floor: floor(), ...at, names: names ? JSON.stringify(names) : '', take: names !== null }
    const params = { path: { project_id: store.id }, query }
    const read = await attempt(() => taken(api.POST('/api/projects/{project_id}/survey', { params, ...asFile(file) })))
    if (!read) return
    faults.value = read.faults.map((f) => `line ${f.line}: ${f.what}`)
    waiting.value = read.taken ? null : { file, proposed: read.proposed, read: read.read }
    if (read.taken) await load()
  }
  /** Leave a walk out, or count it again. */
  async function count(number: number, counts: boolean): Promise<void> {
    const params = { path: { project_id: store.id, number } }
    if (await attempt(() => taken(api.POST('/api/projects/{project_id}/walks/{number}', { params, body: { counts } })))) await load()
  }
  return { view, waiting, faults, send, count }
}
