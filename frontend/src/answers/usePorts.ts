import { shallowRef, watch } from 'vue'
import { api, file, taken } from '@/api/client'
import type { SeenPort, SwitchDraw } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'
import { useProgress } from './useProgress'

/** Ports as they came up, against what is planned. */
export function usePorts() {
  const store = useDesign()
  const attempt = useAttempt()
  const progress = useProgress()
  const ports = shallowRef<SeenPort[]>([])
  const switches = shallowRef<SwitchDraw[]>([])

  function show(seen: { ports: SeenPort[]; switches: SwitchDraw[] }): void {
    ports.value = seen.ports
    switches.value = seen.switches
  }

  async function load(): Promise<void> {
    const found = await attempt(() => taken(api.GET('/api/projects/{project_id}/ports', { params: { path: { project_id: store.id } } })))
    if (found) show(found)
  }

  async function send(data: File, take: boolean) {
    const params = { path: { project_id: store.id }, ...(take ? { query: { take: '1' } } : {}) }
    const read = await taken(api.POST('/api/projects/{project_id}/ports/list', { params: params as never, ...file(data) }))
    if (read.taken) {
      show(read)
      void progress.load()
    }
    return read
  }

  watch(() => [store.id, store.revision], () => void load(), { immediate: true })
  return { ports, switches, send }
}
