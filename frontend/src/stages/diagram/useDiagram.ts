import { createSharedComposable, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { DiagramCard, DiagramNode, Kind } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'

export type Reading = 'cables' | 'networks' | 'power' | 'client'
export const READINGS: { value: Reading; label: string }[] = [
  { value: 'cables', label: 'Cables' }, { value: 'networks', label: 'Networks' }, { value: 'power', label: 'Power' }, { value: 'client', label: 'For the client' },
]

/** The network drawn: what stands in it and where, what was opened and folded away, and what is chosen. */
export const useDiagram = createSharedComposable(() => {
  const store = useDesign()
  const reading = useLocalStorage<Reading>('heathrise-diagram-reading', 'cables')
  const when = ref<'planned' | 'today'>('planned')
  const opened = ref<string[]>([])
  const shut = ref<string[]>([])
  const { answer: view } = useBeside(
    (project_id) => taken(api.GET('/api/projects/{project_id}/diagram', { params: { path: { project_id }, query: { opened: opened.value.join('|'), shut: shut.value.join('|'), when: when.value } } })),
    { about: () => [opened.value.join('|'), shut.value.join('|'), when.value].join('#') },
  )
  watch(() => store.id, () => ((opened.value = []), (shut.value = [])))

  const nodes = computed(() => new Map((view.value?.diagram.nodes ?? []).map((n) => [n.id, n])))
  const cards = computed(() => view.value?.picture.cards ?? [])
  const cardOf = computed(() => new Map(cards.value.flatMap((c) => c.nodes.map((n) => [n, c] as const))))
  const below = computed(() => {
    const found = new Map<string, DiagramNode[]>()
    for (const n of nodes.value.values()) if (n.parent) found.set(n.parent, [...(found.get(n.parent) ?? []), n])
    return found
  })
  /** The thing that is chosen: on the sheet, in the list, or here. */
  const chosen = computed(() => (store.selection && nodes.value.has(store.selection.id) ? store.selection.id : ''))
  /** From what is chosen up to the line. */
  const path = computed(() => {
    const found: string[] = []
    for (let at: string | null | undefined = chosen.value; at; at = nodes.value.get(at)?.parent) found.push(at)
    return new Set(found)
  })
  /** All that hangs on what is chosen: what goes dark without it. */
  const dark = computed(() => {
    const found = new Set<string>()
    const go = (id: string) => (below.value.get(id) ?? []).forEach((n) => (found.add(n.id), go(n.id)))
    if (chosen.value) go(chosen.value)
    return found
  })
  /** Where the way of what is chosen is narrowest, behind the line. */
  const narrowest = computed(() => {
    const chain = store.shown?.chains.chains.find((c) => c.device === chosen.value)
    const link = chain?.links[chain.inside]
    return link ? (link.kind === 'cable' || link.kind === 'device' || link.kind === 'air' ? chosen.value : (link.element ?? '')) : ''
  })
  const kindOf = (node: DiagramNode): Kind | null => (node.kind === 'switch' ? 'switch' : node.element ? 'device' : null)

  function choose(card: DiagramCard): void {
    const node = nodes.value.get(card.id)
    if (!node) return toggle(card)
    const kind = kindOf(node)
    store.selection = kind && store.selection?.id !== node.element ? { kind, id: node.element! } : null
  }
  /** Fold a branch or what is alike, or unfold it. */
  function toggle(card: DiagramCard): void {
    const fold = card.id.startsWith('fold:')
    if (card.folded) {
      shut.value = shut.value.filter((k) => k !== card.id)
      if (fold) opened.value = [...opened.value, card.id]
    } else shut.value = [...shut.value, card.id]
  }
  /** Open the fold that a thing lies in. */
  watch(chosen, (id) => {
    const card = id ? cardOf.value.get(id) : undefined
    if (card?.id.startsWith('fold:')) toggle(card)
  })
  return { view, reading, when, opened, shut, nodes, cards, cardOf, below, chosen, path, dark, narrowest, kindOf, choose, toggle }
})
