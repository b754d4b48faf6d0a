import { onScopeDispose, ref } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { BringItem } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'
import { useProjectJob } from './useJob'
import { sendKeys } from './useKeys'

const LOOK_AGAIN_MS = 1500

/** A site on its way up: its fourteen steps as the controller tells them, and what does each. */
export function useBringUp() {
  const store = useDesign()
  const said = ref('')
  const { job, running, run, stop } = useProjectJob()
  const path = () => ({ path: { project_id: store.id } })
  const failed = (error: ApiError) => {
    said.value = error.message
    view.value = null
  }
  const { answer: view, load } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/controller/bring-up', { params: { path: { project_id } } })), { failed })
  const timer = setInterval(() => document.visibilityState === 'visible' && void load(), LOOK_AGAIN_MS)
  onScopeDispose(() => clearInterval(timer))

  /** Do what an item asks for; what a controller refuses is told by its name. */
  async function act(item: BringItem): Promise<void> {
    said.value = ''
    try {
      if (item.does === 'push') await run('push', { target: item.target ?? '' })
      else if (item.does === 'tick') view.value = await taken(api.POST('/api/projects/{project_id}/controller/ticks', { params: path(), body: { item: item.id, done: item.state !== 'done', note: '' } }))
      else if (item.does === 'update_itself') await taken(api.POST('/api/projects/{project_id}/controller/update', { params: path() }))
      else if (item.does === 'keys') said.value = await sendKeys(store.id)
      else if (item.does === 'backup') await taken(api.POST('/api/projects/{project_id}/controller/backups', { params: path(), body: { label: 'bring-up' } }))
      else if (item.does === 'adopt' || item.does === 'update' || item.does === 'release') await taken(api.POST('/api/projects/{project_id}/controller/gear/{serial}/{doing}', { params: { path: { project_id: store.id, serial: item.serial ?? '', doing: item.does } } }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = `${item.name}: ${error.message}`
    }
  }
  /** Whether several are being asked just now: a second press would ask them again. */
  const asking = ref(false)
  async function actOnAll(items: readonly BringItem[]): Promise<void> {
    asking.value = true
    try {
      await askAll(items)
    } finally {
      asking.value = false
    }
  }
  async function askAll(items: readonly BringItem[]): Promise<void> {
    const wrong: string[] = []
    // A push of everything goes in one safe order, not device by device.
    if (items.some((i) => i.does === 'push')) await run('push', {})
    // All keys go by one press, after the names that they belong to.
    const keys = items.find((i) => i.does === 'keys')
    for (const item of [...(keys ? [keys] : []), ...items.filter((i) => i.does !== 'push' && i.does !== 'keys')]) {
      await act(item)
      if (said.value) wrong.push(said.value)
    }
    said.value = wrong.join(' · ')
    await load()
  }
  async function blink(serial: string, on: boolean): Promise<void> {
    try {
      await taken(api.POST('/api/projects/{project_id}/controller/gear/{serial}/{doing}', { params: { path: { project_id: store.id, serial, doing: on ? 'blink' : 'still' } } }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.message
    }
  }
  /** Say whether the site is set up at the bench, behind which network, or stands where it belongs. */
  async function stage(at_bench: boolean, subnet: string): Promise<void> {
    said.value = ''
    try {
      view.value = await taken(api.PUT('/api/projects/{project_id}/controller/staging', { params: path(), body: { at_bench, subnet } }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.message
    }
  }
  /** Take a list of which device has which serial. */
  async function sendSerials(data: File, take: boolean) {
    const params = { path: { project_id: store.id }, ...(take ? { query: { take: '1' } } : {}) }
    const read = await taken(api.POST('/api/projects/{project_id}/controller/serials/list', { params: params as never, ...file(data) }))
    if (read.taken) void load()
    return read
  }
  async function match(device: string, serial: string): Promise<void> {
    try {
      await taken(api.PUT('/api/projects/{project_id}/controller/serials', { params: path(), body: { device, serial } }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.message
    }
    await load()
  }
  return { view, said, job, running, stop, act, actOnAll, asking, blink, match, stage, sendSerials, load }
}
