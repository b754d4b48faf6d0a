import { computed } from 'vue'
import { api, file, taken } from '@/api/client'
import type { SeenSpeed } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'
import { useProgress } from './useProgress'

export type Occasion = 'baseline' | 'hand_over'

/** Speeds at the line and in the rooms, against what the plan lets through. */
export function useSpeeds() {
  const store = useDesign()
  const progress = useProgress()
  const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/speeds', { params: { path: { project_id } } })))
  const speeds = computed<SeenSpeed[]>(() => answer.value?.speeds ?? [])

  async function note(where: string, occasion: Occasion, down_mbps: number, up_mbps: number | null, delay_ms: number | null): Promise<void> {
    answer.value = await taken(api.POST('/api/projects/{project_id}/speeds', { params: { path: { project_id: store.id } }, body: { where, occasion, down_mbps, up_mbps, delay_ms } }))
    void progress.load()
  }
  async function send(data: File, take: boolean, occasion: Occasion) {
    const params = { path: { project_id: store.id }, query: { occasion, ...(take ? { take: '1' } : {}) } }
    const read = await taken(api.POST('/api/projects/{project_id}/speeds/list', { params: params as never, ...file(data) }))
    if (read.taken) {
      answer.value = read
      void progress.load()
    }
    return read
  }
  return { answer, speeds, note, send }
}
