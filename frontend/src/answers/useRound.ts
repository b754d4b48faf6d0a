import { computed, onScopeDispose, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ApiError, api, taken } from '@/api/client'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'

const TICK_MS = 1000
const LOOK_AGAIN_MS = 10_000

/** The round of practice that a project is: its clock, and what is told in the end. None where it is a project for work. */
export function useRound() {
  const store = useDesign()
  const said = ref('')
  const failed = (error: ApiError) => (said.value = error.message)
  const { answer: view, load } = useBeside(
    async (project_id) => {
      const found = await taken(api.GET('/api/projects/{project_id}/round', { params: { path: { project_id } } }))
      since.value = performance.now()
      return found
    },
    { failed },
  )
  const since = ref(0)
  const now = ref(performance.now())
  const round = computed(() => view.value?.round ?? null)
  /** Seconds by the site's clock, which goes on between two looks; one that is over has no pace. */
  const used_s = computed(() => {
    const one = round.value
    return one ? one.used_s + Math.max(0, (now.value - since.value) / 1000) * one.pace : 0
  })
  const ticking = setInterval(() => (now.value = performance.now()), TICK_MS)
  const looking = setInterval(() => round.value && !round.value.debrief && void load(), LOOK_AGAIN_MS)
  onScopeDispose(() => (clearInterval(ticking), clearInterval(looking)))

  async function told(asked: ReturnType<typeof ask>): Promise<void> {
    said.value = ''
    try {
      view.value = await asked
      since.value = performance.now()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      said.value = error.message
    }
  }
  const ask = (what: 'end' | 'measure') => taken(api.POST(`/api/projects/{project_id}/round/${what}`, { params: { path: { project_id: store.id } } }))
  const end = () => told(ask('end'))
  const measure = () => told(ask('measure'))
  return { round, used_s, said, end, measure }
}

/** Begins rounds, each on a copy of a project, and goes there. */
export function useBeginRound() {
  const router = useRouter()
  const beginning = ref(false)
  const wrong = ref('')
  async function begin(project_id: string, trainee: string, faults: number): Promise<void> {
    beginning.value = true
    wrong.value = ''
    try {
      const { project } = await taken(api.POST('/api/projects/{project_id}/rounds', { params: { path: { project_id } }, body: { trainee, faults, seed: null } }))
      await router.push(`/p/${project}/install?part=bring`)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      wrong.value = error.words
    } finally {
      beginning.value = false
    }
  }
  return { beginning, wrong, begin }
}
