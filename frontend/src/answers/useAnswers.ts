import { computed, ref, shallowRef } from 'vue'
import { ApiError, api, sendForLines, taken } from '@/api/client'
import type { Answer, Change, Evaluation, Finding, Line, Relief, View } from '@/api/types'
import { filled, patched } from './patch'

const FULL_AFTER_MS = 120
const SEARCH_AGAIN_MS = 800 // a better channel plan is being looked for
const FIGURES_EVERY_MS = 150
const REST_MS = 60
const WORST_FIRST = { not_met: 0, near: 1, note: 2 } as const

/** What an answer is asked about: the project, its revision, and what of it is not saved yet. */
export interface Asked {
  id: () => string
  revision: () => number
  unsaved: () => Change[]
  failed: (error: ApiError) => void
  reached: () => void
}

/** What the server makes of the open design: its evaluation, the relief in view, previews of a drag. */
export function useAnswers(asked: Asked) {
  const evaluation = shallowRef<Evaluation | null>(null)
  const dragged = shallowRef<Evaluation | null>(null)
  const relief = shallowRef<Relief | null>(null)
  const previous = shallowRef<Evaluation | null>(null)
  const view = ref<View | null>(null)
  const shown = computed(() => dragged.value ?? evaluation.value)
  /** The findings of all chapters, the worst first. */
  const findings = computed<Finding[]>(() => {
    const now = shown.value
    if (!now) return []
    const chapters = [now.plan, now.signal, now.cable, now.power, now.settings, now.brief]
    const all = chapters.flatMap((chapter) => chapter?.findings ?? [])
    return all.sort((a, b) => WORST_FIRST[a.severity] - WORST_FIRST[b.severity])
  })
  let mark = ''
  let later: ReturnType<typeof setTimeout> | undefined

  function forget(): void {
    clearTimeout(rest)
    evaluation.value = dragged.value = relief.value = previous.value = null
    view.value = null
    mark = ''
  }

  /** The evaluation that an answer stands for; null where it builds on one that is not here. */
  function read(answer: Answer): Evaluation | null {
    if (answer.evaluation) return filled(answer.evaluation, evaluation.value)
    if (!evaluation.value || answer.base !== mark) return null
    return patched(evaluation.value, answer.patch ?? {})
  }

  function take(answer: Answer): boolean {
    const next = read(answer)
    if (!next) return false
    mark = answer.mark
    evaluation.value = next
    if (next.signal.searching) schedule(SEARCH_AGAIN_MS)
    return true
  }

  /** An edit is saved, and this is what follows from it. */
  function settle(answer: Answer): void {
    const before = evaluation.value
    if (!take(answer)) return schedule()
    previous.value = before
    dragged.value = null
  }

  function schedule(afterMs = FULL_AFTER_MS): void {
    clearTimeout(later)
    later = setTimeout(() => void evaluate(), afterMs)
  }

  let evaluating = false
  let overtaken = false

  /** Ask for the whole evaluation; one request is under way, and at most one more follows it. */
  async function evaluate(): Promise<void> {
    overtaken = evaluating
    if (evaluating) return
    evaluating = true
    try {
      await ask()
    } finally {
      evaluating = false
    }
    if (overtaken) schedule()
  }

  async function ask(): Promise<void> {
    const project = asked.id()
    try {
      const params = { path: { project_id: project }, query: { base: mark } }
      const answer = await taken(api.GET('/api/projects/{project_id}/evaluation', { params }))
      // An answer that an edit has overtaken says nothing about what is on the screen.
      if (project !== asked.id() || asked.unsaved().length || answer.revision !== asked.revision()) return
      asked.reached()
      if (!take(answer)) {
        mark = ''
        schedule()
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      asked.failed(error)
    }
  }

  async function drawRelief(): Promise<void> {
    const wanted = view.value
    if (!wanted || !asked.id()) return
    const params = { path: { project_id: asked.id() }, query: { ...wanted } }
    try {
      const drawn = await taken(api.GET('/api/projects/{project_id}/relief', { params }))
      if (view.value === wanted && held !== hand) relief.value = drawn
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    }
  }

  function show(next: View | null): void {
    view.value = next
    if (next) void drawRelief()
    else relief.value = null
  }

  /** Save changes; the figures come back, then the relief. Resolves as soon as the figures are here. */
  function save(body: { revision: number; label: string; changes: Change[] }): Promise<Answer> {
    const wanted = view.value
    return new Promise((resolve, reject) => {
      const path = `/api/projects/${asked.id()}/changes`
      sendForLines<Line>(path, { ...body, base: mark || null, view: wanted }, (line) => {
        if (line.answer) resolve(line.answer)
        if (line.relief && view.value === wanted && held !== hand && !asked.unsaved().length) relief.value = line.relief
      }).then(() => reject(new ApiError(0, 'The answer was cut off.')), reject)
    })
  }

  let hand = 0 // counts the drags: what was asked for in one says nothing in the next
  let held = -1 // the drag that is followed just now
  let waiting: Change[] | null = null
  let figuresFor: Change[] | null = null // asked for, or the last that were
  let asking = false
  let figuresAt = 0
  let rest: ReturnType<typeof setTimeout> | undefined

  /** Evaluate changes without saving them; while one is under way only the latest waits. The relief
   * follows every move; the figures a few times a second, beside it, and when the hand rests. */
  async function preview(changes: Change[]): Promise<void> {
    waiting = changes
    clearTimeout(rest)
    if (held >= 0) return
    const mine = (held = hand)
    try {
      while (waiting && mine === hand) {
        const latest: Change[] = waiting
        waiting = null
        const drawn = view.value !== null // else figures are all that follows the hand
        const due = !drawn || performance.now() - figuresAt > FIGURES_EVERY_MS
        const worked = due ? figuresOf(latest) : undefined
        await (drawn ? tryOut(latest, false) : worked)
        if (!waiting && mine === hand) atRest(latest)
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    } finally {
      held = -1
    }
    if (waiting) void preview(waiting)
  }

  function atRest(changes: Change[]): void {
    rest = setTimeout(() => {
      if (asking) atRest(changes)
      else if (figuresFor !== changes) void figuresOf(changes)
    }, REST_MS)
  }

  async function figuresOf(changes: Change[]): Promise<void> {
    if (asking) return
    asking = true
    figuresFor = changes
    try {
      await tryOut(changes, true)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    } finally {
      asking = false
    }
  }

  async function tryOut(changes: Change[], figures: boolean): Promise<void> {
    const mine = hand
    const body = {
      changes: [...asked.unsaved(), ...changes], base: mark || null, view: figures ? null : view.value, figures,
    }
    await sendForLines<Line>(`/api/projects/${asked.id()}/preview`, body, (line) => {
      if (mine !== hand) return
      if (line.relief) relief.value = line.relief
      const next = line.answer && read(line.answer)
      if (next) {
        dragged.value = next
        figuresAt = performance.now()
      }
    })
  }

  /** Forget a preview, either because the edit was made or because it was given up. */
  function endPreview(kept: boolean): void {
    waiting = null
    hand += 1
    clearTimeout(rest)
    if (kept) return
    dragged.value = null
    void drawRelief()
  }

  return {
    evaluation, dragged, shown, findings, relief, previous, view,
    forget, settle, schedule, evaluate, drawRelief, show, save, preview, endPreview,
  }
}
