import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import type { Change, Cure, JobKinds, Point, Site } from '@/api/types'
import { useDesign } from '@/document/store'

export type Sited = JobKinds['sites']['result']
export type Answer = Sited['answers'][number]
/** What becomes of one access point in an answer. */
export type Moved = Answer['moved'][number]
/** The best so far, while it is looked for. */
export interface BestSoFar {
  goal: string
  count: number
  least: number | null
  places: { floor: string; at: Point }[]
}

/** A search for places: what it is free to do, how far it is, its answers; and the small questions. */
export function useSites() {
  const store = useDesign()
  const wishes = reactive({ models: [] as string[], mounts: [] as ('ceiling' | 'wall')[], second: true, margin_db: null as number | null, keep: [] as string[], back_haul: null as Site['back_haul'] | null, seconds: 30 })
  const kind = ref<'sites' | 'best_places' | 'needless'>('sites')
  const { job, running, run, stop } = useProjectJob()
  const found = shallowRef<Sited | null>(null)
  const cures = shallowRef<{ asked: string; rows: Cure[] } | null>(null)
  const chosen = ref('')
  const answer = computed(() => found.value?.answers.find((a) => a.goal === chosen.value) ?? null)
  const best = computed(() => (running.value && kind.value === 'sites' ? ((job.value?.result as BestSoFar | null) ?? null) : null))

  /** Begin a job anew: what an earlier one found is put away. */
  function begin(what: typeof kind.value): void {
    look('')
    cures.value = found.value = null
    kind.value = what
  }

  async function search(more: { goals?: ['fewest']; most?: number } = {}): Promise<void> {
    begin('sites')
    const done = await run('sites', { wishes: { ...wishes, ...more } })
    if (!done?.result) return
    found.value = done.result
    look(found.value.answers[0]?.goal ?? '')
  }

  /** Whether one fewer will do: a search for fewer than there are. */
  const fewer = (now: number) => search({ goals: ['fewest'], most: Math.max(0, now - 1) })

  async function ask(what: 'best_places' | 'needless', said: string, device = ''): Promise<void> {
    begin(what)
    const done = what === 'needless' ? await run(what, { wishes }) : await run(what, { wishes, device })
    if (done?.result) cures.value = { asked: said, rows: done.result.cures }
  }

  /** Look at an answer on the sheet and in the tally, or at the plan again. */
  function look(goal: string): void {
    chosen.value = chosen.value === goal ? '' : goal
    if (answer.value) void store.preview(answer.value.changes as Change[])
    else store.endPreview(false)
  }

  function take(): void {
    const taken = answer.value
    if (!taken) return
    const label = `${taken.name}: ${taken.count} access points`
    chosen.value = ''
    found.value = null
    store.endPreview(true)
    store.commit(label, taken.changes as Change[])
  }
  function mend(cure: Cure): void {
    cures.value = null
    store.commit(cure.label, cure.changes as Change[])
  }
  function leave(): void {
    if (chosen.value) look('')
  }
  // Answers are to the plan they were found for.
  watch(() => store.revision, () => {
    chosen.value = ''
    found.value = cures.value = null
  })
  return { wishes, job, running, stop, found, cures, chosen, answer, best, search, fewer, ask, look, take, mend, leave }
}
