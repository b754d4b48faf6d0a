import { computed } from 'vue'
import { api, file, taken } from '@/api/client'
import type { SeenPort, SwitchDraw } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'
import { useProgress } from './useProgress'

/** Ports as they came up, against what is planned. */
export function usePorts() {
  const store = useDesign()
  const progress = useProgress()
  const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/ports', { params: { path: { project_id } } })))
  const ports = computed<SeenPort[]>(() => answer.value?.ports ?? [])
  const switches = computed<SwitchDraw[]>(() => answer.value?.switches ?? [])

  async function send(data: File, take: boolean) {
    const params = { path: { project_id: store.id }, ...(take ? { query: { take: '1' } } : {}) }
    const read = await taken(api.POST('/api/projects/{project_id}/ports/list', { params: params as never, ...file(data) }))
    if (read.taken) {
      answer.value = read
      void progress.load()
    }
    return read
  }

  return { ports, switches, send }
}
