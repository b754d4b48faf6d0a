import { computed, onScopeDispose } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Change, ControllerView } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'
import { sendKeys } from './useKeys'
import { useTold } from './useTold'

const LOOK_AGAIN_MS = 1500
type Doing = 'adopt' | 'update' | 'blink' | 'still' | 'release'

/** The site's controller as it is now, looked at again and again, and what is asked of it. */
export function useController() {
  const store = useDesign()
  const { wrong: said, busy, told: ask } = useTold()
  const path = () => ({ path: { project_id: store.id } })
  const failed = (error: ApiError) => (said.value = error.message)
  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/controller', { params: { path: { project_id } } })), { failed })
  const timer = setInterval(() => document.visibilityState === 'visible' && !busy.value && void load(), LOOK_AGAIN_MS)
  onScopeDispose(() => clearInterval(timer))

  async function told(asked: Promise<ControllerView>): Promise<boolean> {
    const found = await ask(asked)
    if (found) view.value = found
    return !!found
  }
  const on = (serial: string, doing: Doing) => told(taken(api.POST('/api/projects/{project_id}/controller/gear/{serial}/{doing}', { params: { path: { project_id: store.id, serial, doing } } })))
  const readBack = () => told(taken(api.POST('/api/projects/{project_id}/controller/read', { params: path() })))
  const updateItself = () => told(taken(api.POST('/api/projects/{project_id}/controller/update', { params: path() })))
  const match = (device: string, serial: string) => told(taken(api.PUT('/api/projects/{project_id}/controller/serials', { params: path(), body: { device, serial } })))
  const keepBackup = (label: string) => told(taken(api.POST('/api/projects/{project_id}/controller/backups', { params: path(), body: { label } })))
  const restore = (number: number) => told(taken(api.POST('/api/projects/{project_id}/controller/backups/{number}/restore', { params: { path: { project_id: store.id, number } } })))
  async function giveKeys(): Promise<void> {
    try {
      const wrong = await sendKeys(store.id)
      await load()
      said.value = wrong
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.message
    }
  }
  const plugIn = (faults: number, afresh: boolean) => told(taken(api.PUT('/api/projects/{project_id}/controller/standin', { params: path(), body: { faults, afresh, seed: null } })))

  /** Let the plan have what the controller holds. */
  async function takeOver(target: string, key: string, label: string): Promise<void> {
    const found = await ask(taken(api.POST('/api/projects/{project_id}/controller/take-over', { params: path(), body: { target, key } })))
    if (found) store.commit(label.slice(0, 120), [...found.changes] as Change[])
  }
  /** Ask the same of several, one after the other; what one refuses is told, the next is asked even so. */
  async function onEach(serials: string[], doing: Doing): Promise<void> {
    const wrong: string[] = []
    for (const serial of serials) if (!(await on(serial, doing))) wrong.push(`${serial}: ${said.value}`)
    said.value = wrong.join(' · ')
  }
  const online = computed(() => view.value?.devices.filter((d) => d.stand === 'online').length ?? 0)
  return { view, load, said, busy, on, onEach, readBack, updateItself, match, keepBackup, restore, plugIn, takeOver, giveKeys, online }
}
