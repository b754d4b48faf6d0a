import { computed } from 'vue'
import { api, taken } from '@/api/client'
import type { CableTestSaid, TestedCable } from '@/api/types'
import { useDesign } from '@/document/store'
import { useOutbox, useWho } from '@/outbox/useOutbox'
import { useBeside } from './useBeside'

/** What was tested of the cables; facts beside the plan, which undo does not touch. */
export function useCableTests() {
  const store = useDesign()
  const outbox = useOutbox()
  const who = useWho()
  const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/tests', { params: { path: { project_id } } })))
  const cables = computed<TestedCable[]>(() => answer.value?.cables ?? [])
  const unsent = computed(() => outbox.waitingOf('tests', store.id).map((e) => e.row))

  /** Note a test; false where this device has no room to keep it. */
  function add(test: Pick<CableTestSaid, 'device' | 'cable' | 'result' | 'length_m'>): boolean {
    const name = cables.value.find((c) => c.device === test.device)?.name ?? test.device
    const row = { ...test, wire_map: '', loss_db: null, note: '', key: crypto.randomUUID(), by: who.value.trim() || 'installer', at: new Date().toISOString(), clock: null }
    return outbox.keep('tests', store.id, store.name, `Test of ${name}, cable ${test.cable ?? 1}`, row)
  }

  outbox.onAnswered(({ project, cables: known }) => {
    if (known && project === store.id) answer.value = { cables: known }
  })
  const show = (tested: TestedCable[]) => (answer.value = { cables: tested })
  return { cables, unsent, add, show }
}
