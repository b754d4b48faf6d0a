import { computed, onScopeDispose, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Change, ScanView } from '@/api/types'
import { useDesign } from '@/document/store'
import { useTold } from './useTold'

const LOOK_AGAIN_MS = 2000

/** A scan of the neighbourhood by the site's own access points: asked for, waited for, taken into the plan. */
export function useScan() {
  const store = useDesign()
  const view = shallowRef<ScanView | null>(null)
  const { wrong, busy, told: ask } = useTold()
  const path = () => ({ params: { path: { project_id: store.id } } })
  const going = computed(() => view.value?.state === 'waits' || view.value?.state === 'under_way')

  async function told(asked: Promise<ScanView>): Promise<void> {
    const project = store.id
    const found = await ask(asked)
    if (found && project === store.id) view.value = found
  }
  const look = () => told(taken(api.GET('/api/projects/{project_id}/controller/scan', path())))
  const begin = (when: 'quiet' | 'now') => told(taken(api.POST('/api/projects/{project_id}/controller/scan', { ...path(), body: { when } })))
  const drop = () => told(taken(api.DELETE('/api/projects/{project_id}/controller/scan', path())))
  /** Let the hour come that a scan waits for, where a stand-in plays the site. */
  const letPass = () => told(taken(api.POST('/api/projects/{project_id}/controller/scan/pass', path())))
  function take(): void {
    const changes = view.value?.offer?.changes
    if (changes?.length) store.commit('Neighbours as the access points hear them', [...changes] as Change[])
  }
  watch(() => store.id, () => (view.value = null))
  watch(() => store.revision, () => view.value && void look())
  const timer = setInterval(() => document.visibilityState === 'visible' && going.value && !busy.value && void look(), LOOK_AGAIN_MS)
  onScopeDispose(() => clearInterval(timer))
  return { view, wrong, busy, going, look, begin, drop, letPass, take }
}
