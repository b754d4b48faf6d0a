import { ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import { modelsOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { tool } from './tools'

/** What one more of the device in hand would really cost, packs counted: told while placing. */
export function useOneMore() {
  const store = useDesign()
  const words = ref('')
  let asked = 0

  async function tell(kind: string): Promise<void> {
    const mine = ++asked
    words.value = ''
    const last = store.all('device').filter((d) => d.kind === kind && d.state === 'new').at(-1)
    const model = modelsOf(store.catalogue, kind).find((m) => m.id === last?.model)
    if (!model || !Object.keys(model.packs ?? {}).length) return
    try {
      const order = await taken(api.GET('/api/projects/{project_id}/order', { params: { path: { project_id: store.id } } }))
      const line = order.lines.find((l) => l.item === model.id)
      if (mine !== asked || line?.one_more === null || line?.one_more === undefined) return
      words.value = `one more ${model.label} costs ${line.one_more.toFixed(2)} ${order.currency}, packs counted`
    } catch {
      // Without the server there is no price; placing goes on.
    }
  }

  watch(
    () => [tool.value, store.revision] as const,
    ([kind]) => {
      if (store.catalogue?.roles[kind]) void tell(kind)
      else words.value = ''
    },
    { immediate: true },
  )
  return words
}
