import { createSharedComposable } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { JobKinds } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import { useProjectJob } from '@/answers/useJob'
import { useDesign } from '@/document/store'
import { useDiagram } from './useDiagram'

type Failure = JobKinds['drill']['result']['failures'][number]
const INTERNET = 'internet'
const LOOK_AGAIN_MS = 3000

/** What the controller says, a packet's walk and the drill, in the picture of the diagram, where somebody asks. */
export const useOverlays = createSharedComposable(() => {
  const store = useDesign()
  const { chosen, nodes } = useDiagram()

  // As the controller sees it.
  const live = ref(false)
  const trouble = ref('')
  const { answer: seen, load } = useBeside(
    (project_id) => taken(api.GET('/api/projects/{project_id}/controller', { params: { path: { project_id } } })),
    { wanted: () => live.value, about: () => live.value, failed: (error) => (trouble.value = error.message) },
  )
  const timer = setInterval(() => live.value && document.visibilityState === 'visible' && void load(), LOOK_AGAIN_MS)
  onScopeDispose(() => clearInterval(timer))
  const stands = computed(() => new Map(live.value ? (seen.value?.devices ?? []).filter((d) => d.managed).map((d) => [d.id, d]) : []))
  const said = computed(() => (live.value ? trouble.value || seen.value?.trouble || '' : ''))

  // A packet from what is chosen.
  const goal = ref('')
  const hosts = computed(() => store.settings?.hosts ?? [])
  const starts = computed(() => hosts.value.filter((h) => h.device === chosen.value))
  const start = computed(() => starts.value.find((h) => !h.id.startsWith('air:'))?.id ?? starts.value[0]?.id ?? '')
  const goals = computed(() => [{ value: '', label: 'nowhere' }, { value: INTERNET, label: 'the internet' }, ...hosts.value.filter((h) => h.id !== start.value).map((h) => ({ value: h.id, label: h.name }))])
  const { answer: packet } = useBeside(
    (project_id) => taken(api.GET('/api/projects/{project_id}/packet', { params: { path: { project_id }, query: { start: start.value, goal: goal.value } } })),
    { wanted: () => !!start.value && !!goal.value, about: () => `${start.value} ${goal.value}`, failed: () => (packet.value = null) },
  )
  const walked = computed(() => (start.value && goal.value ? packet.value : null))
  /** The things that a packet comes by, and the one where it stops. */
  const passed = computed(() => {
    const walk = walked.value
    if (!walk) return new Set<string>()
    const end = walk.passes ? hosts.value.find((h) => h.id === goal.value)?.device : undefined
    const way = [chosen.value, ...walk.hops.map((h) => h.element), walk.passes && goal.value === INTERNET ? 'line' : '', end ?? '']
    return new Set(way.filter((id) => nodes.value.has(id)))
  })
  const stopped = computed(() => (walked.value?.passes === false ? (walked.value.hops.find((h) => h.passes === false && nodes.value.has(h.element))?.element ?? [...passed.value].at(-1) ?? '') : ''))
  watch(chosen, () => (goal.value = ''))

  // What rooms lose without what is chosen.
  const { job, running, run, stop } = useProjectJob()
  const failures = shallowRef<Failure[] | null>(null)
  watch(() => [store.id, store.revision], () => (failures.value = null))
  async function drill(): Promise<void> {
    const done = await run('drill', { path: [] })
    failures.value = done?.result?.failures ?? []
  }
  const failure = computed(() => failures.value?.find((f) => f.element === chosen.value && f.kind !== 'port'))
  return { live, stands, said, goal, goals, start, walked, passed, stopped, job, running, stop, drill, failures, failure }
})
