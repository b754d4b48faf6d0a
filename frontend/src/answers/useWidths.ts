import { api, taken } from '@/api/client'
import { useBeside } from './useBeside'

/** What each width of channels comes to on 5 GHz, while it is ``shown``. */
export function useWidths(shown: () => boolean) {
  const ask = (project_id: string) => taken(api.GET('/api/projects/{project_id}/widths', { params: { path: { project_id } } }))
  const { answer: widths } = useBeside(ask, { wanted: shown })
  return { widths }
}
