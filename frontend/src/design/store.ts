import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef, watch } from 'vue'
import { KINDS } from '@/api/design'
import { ApiError, get, send, sendForLines } from '@/api/client'
import type {
  Answer,
  AnyElement,
  Catalogue,
  Change,
  ElementOf,
  ElementTables,
  Evaluation,
  Kind,
  Point,
  PreviewLine,
  ProjectDocument,
  Relief,
  SettingsSheet,
  Tally,
  View,
} from '@/api/types'
import { Keeper, type Batch, type Pending } from './keeper'
import { applyTo, inverseOf, touches, type Tables } from './tables'

export interface Selection {
  kind: Kind
  id: string
}

const RETRY_MS = 2500
const FULL_AFTER_MS = 120
const SEARCH_AGAIN_MS = 800 // a better channel plan is being looked for
const FIGURES_EVERY_MS = 150
const REST_MS = 60

/** The open design: elements, what is not yet saved, undo, and what the server makes of it. */
export const useDesign = defineStore('design', () => {
  const id = ref('')
  const name = ref('')
  const revision = ref(0)
  const tables = shallowRef<Tables>({})
  const catalogue = shallowRef<Catalogue | null>(null)

  const evaluation = shallowRef<Evaluation | null>(null)
  const dragged = shallowRef<Evaluation | null>(null)
  /** The last settings sheet worked out: it stays up while the next is searched for. */
  const settings = shallowRef<SettingsSheet | null>(null)
  const relief = shallowRef<Relief | null>(null)
  const previousTally = shallowRef<Tally | null>(null)
  const view = ref<View | null>(null)

  const pending = ref<Pending[]>([])
  const undoStack = shallowRef<Batch[]>([])
  const redoStack = shallowRef<Batch[]>([])
  const saving = ref(false)
  const offline = ref(false)
  const trouble = ref<{ message: string; detail: string[] } | null>(null)
  const conflict = shallowRef<{ theirs: Change[]; mine: Pending[]; revision: number } | null>(null)
  const selection = ref<Selection | null>(null)
  /** Where a mark is held while it is dragged or nudged, not yet part of the design. */
  const ghost = shallowRef<{ kind: Kind; id: string; at: Point } | null>(null)
  let keeper = new Keeper('')
  let retry: ReturnType<typeof setTimeout> | undefined
  let later: ReturnType<typeof setTimeout> | undefined

  const floors = computed(() =>
    [...all('floor')].sort((a, b) => a.building.localeCompare(b.building) * -1 || a.level - b.level),
  )
  const site = computed(() => all('site')[0])
  const shown = computed(() => dragged.value ?? evaluation.value)
  const canUndo = computed(() => undoStack.value.length > 0)
  const canRedo = computed(() => redoStack.value.length > 0)
  const saveState = computed(() => {
    const kept = pending.value.length
    if (conflict.value) return 'Two versions: choose which to keep'
    if (offline.value) return `Offline: ${kept} ${kept === 1 ? 'change' : 'changes'} kept here`
    if (kept || saving.value) return 'Saving'
    return `Saved, revision ${revision.value}`
  })

  function all<K extends Kind>(kind: K): ElementOf<K>[] {
    return [...((tables.value[kind]?.values() ?? []) as Iterable<ElementOf<K>>)]
  }

  function find<K extends Kind>(kind: K, elementId: string): ElementOf<K> | undefined {
    return tables.value[kind]?.get(elementId) as ElementOf<K> | undefined
  }

  function nextId(kind: Kind, stem: string): string {
    for (let n = 1; ; n++) if (!tables.value[kind]?.has(`${stem}-${n}`)) return `${stem}-${n}`
  }

  watch([undoStack, redoStack, revision], () => {
    keeper.saveSteps({ revision: revision.value, undo: undoStack.value, redo: redoStack.value })
  })

  async function open(projectId: string): Promise<void> {
    catalogue.value ??= await get<Catalogue>('/api/catalogue')
    take(await get<ProjectDocument>(`/api/projects/${projectId}`))
    const steps = keeper.loadSteps(revision.value)
    if (steps) {
      undoStack.value = steps.undo
      redoStack.value = steps.redo
    }
    const kept = keeper.load()
    if (kept.length) {
      for (const batch of kept) tables.value = applyTo(tables.value, batch.changes)
      pending.value = kept
      void flush()
    }
    await evaluateFully()
  }

  function take(document: ProjectDocument): void {
    clearTimeout(rest)
    id.value = document.id
    name.value = document.name
    revision.value = document.revision
    keeper = new Keeper(document.id)
    const made: Tables = {}
    for (const kind of KINDS) {
      const rows = (document.elements as ElementTables)[kind] ?? []
      made[kind] = new Map(rows.map((row) => [row.id, row as AnyElement]))
    }
    tables.value = made
    evaluation.value = dragged.value = relief.value = previousTally.value = null
    settings.value = null
    pending.value = []
    undoStack.value = redoStack.value = []
    selection.value = ghost.value = null
    conflict.value = null
    trouble.value = null
    view.value = null
  }

  /** Make an edit: it shows at once, can be undone, and is saved in the background. */
  function commit(label: string, changes: Change[]): void {
    if (!changes.length) return
    const back = inverseOf(tables.value, changes)
    run(label, changes)
    undoStack.value = [...undoStack.value, { label, changes: back }]
    redoStack.value = []
  }

  function run(label: string, changes: Change[]): void {
    tables.value = applyTo(tables.value, changes)
    if (selection.value && !find(selection.value.kind, selection.value.id)) selection.value = null
    pending.value = [...pending.value, { id: crypto.randomUUID(), label, changes }]
    keeper.save(pending.value)
    void flush()
  }

  function undo(): void {
    step(undoStack, redoStack, 'Undo')
  }

  function redo(): void {
    step(redoStack, undoStack, 'Redo')
  }

  function step(from: typeof undoStack, to: typeof redoStack, word: string): void {
    const batch = from.value.at(-1)
    if (!batch) return
    const back = inverseOf(tables.value, batch.changes)
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, { label: batch.label, changes: back }]
    run(`${word}: ${batch.label}`.slice(0, 120), batch.changes)
  }

  async function flush(): Promise<void> {
    if (saving.value || conflict.value) return
    saving.value = true
    clearTimeout(retry)
    try {
      while (pending.value.length && !conflict.value && (await saveFirst()));
    } finally {
      saving.value = false
    }
    if (!offline.value && !pending.value.length) scheduleFull()
  }

  /** Save the oldest edit; false when the server cannot be reached and it will be tried later. */
  async function saveFirst(): Promise<boolean> {
    const batch = pending.value[0]!
    const body = { revision: revision.value, label: batch.label, changes: batch.changes }
    try {
      const answer = await send<Answer>(`/api/projects/${id.value}/changes`, body)
      offline.value = false
      revision.value = answer.revision
      pending.value = pending.value.slice(1)
      keeper.save(pending.value)
      if (!pending.value.length) settle(answer.evaluation)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (error.isOffline) {
        offline.value = true
        retry = setTimeout(() => void flush(), RETRY_MS)
        return false
      }
      if (error.status === 409) rebase(error)
      else refuse(batch, error)
    }
    return true
  }

  function settle(next: Evaluation): void {
    previousTally.value = evaluation.value?.tally ?? null
    evaluation.value = next
    dragged.value = null
  }

  /** Somebody saved in between: replay on top where different elements are touched, else ask. */
  function rebase(error: ApiError): void {
    const theirs = error.since
    const latest = error.body['revision'] as number
    const mine = pending.value
    if (JSON.stringify(theirs) === JSON.stringify(mine[0]?.changes)) {
      // The edit had arrived; only the answer was lost.
      pending.value = mine.slice(1)
      revision.value = latest
      keeper.save(pending.value)
      return
    }
    if (touches(theirs, mine.flatMap((b) => b.changes))) {
      conflict.value = { theirs, mine, revision: latest }
      return
    }
    tables.value = applyTo(tables.value, theirs)
    revision.value = latest
  }

  function resolve(keepMine: boolean): void {
    const held = conflict.value
    if (!held) return
    conflict.value = null
    revision.value = held.revision
    tables.value = applyTo(tables.value, held.theirs)
    if (keepMine) for (const b of held.mine) tables.value = applyTo(tables.value, b.changes)
    pending.value = keepMine ? held.mine : []
    if (!keepMine) undoStack.value = redoStack.value = []
    keeper.save(pending.value)
    void flush()
  }

  /** The server will not have it: take the edit back and say why. */
  function refuse(batch: Batch, error: ApiError): void {
    trouble.value = {
      message: `"${batch.label}" was taken back. ${error.message}`,
      detail: error.problems.slice(1, 4).map((p) => `${p.where}: ${p.what}`),
    }
    pending.value = []
    keeper.save([])
    undoStack.value = redoStack.value = []
    void get<ProjectDocument>(`/api/projects/${id.value}`).then((document) => {
      const held = { view: view.value, trouble: trouble.value, relief: relief.value }
      take(document)
      view.value = held.view
      trouble.value = held.trouble
      relief.value = held.relief
      scheduleFull()
    })
  }

  function scheduleFull(afterMs = FULL_AFTER_MS): void {
    clearTimeout(later)
    later = setTimeout(() => void evaluateFully(), afterMs)
  }

  let evaluating = false
  let overtaken = false

  /** Ask for the whole evaluation; one search is under way, and at most one more follows it. */
  async function evaluateFully(): Promise<void> {
    void drawRelief()
    overtaken = evaluating
    if (evaluating) return
    evaluating = true
    try {
      await askFully()
    } finally {
      evaluating = false
    }
    if (overtaken) scheduleFull()
  }

  async function askFully(): Promise<void> {
    const project = id.value
    try {
      const answer = await get<Answer>(`/api/projects/${project}/evaluation`)
      // An answer that an edit has overtaken says nothing about what is on the screen.
      if (project !== id.value || pending.value.length || answer.revision !== revision.value) return
      if (!evaluation.value) previousTally.value = null
      evaluation.value = answer.evaluation
      settings.value = answer.evaluation.settings
      offline.value = false
      if (answer.evaluation.searching) scheduleFull(SEARCH_AGAIN_MS)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (error.isOffline) offline.value = true
      else trouble.value = { message: error.message, detail: [] }
    }
  }

  async function drawRelief(): Promise<void> {
    const wanted = view.value
    if (!wanted || !id.value) return
    const query = new URLSearchParams({
      floor: wanted.floor,
      band: wanted.band,
      rank: String(wanted.rank),
      direction: wanted.direction,
    })
    try {
      const drawn = await get<Relief>(`/api/projects/${id.value}/relief?${query}`)
      if (view.value === wanted && !previewing) relief.value = drawn
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    }
  }

  function show(next: View | null): void {
    view.value = next
    if (next) void drawRelief()
    else relief.value = null
  }

  let previewing = false
  let waiting: Change[] | null = null
  let stopped = false
  let figuresAt = 0
  let rest: ReturnType<typeof setTimeout> | undefined

  /** Evaluate changes without saving them; while one is under way only the latest waits. The relief
   * follows every move, the figures a few times a second and when the hand rests. */
  async function preview(changes: Change[]): Promise<void> {
    waiting = changes
    clearTimeout(rest)
    if (previewing) return
    previewing = true
    try {
      while (waiting) {
        const latest: Change[] = waiting
        waiting = null
        const figures = !view.value || performance.now() - figuresAt > FIGURES_EVERY_MS
        await tryOut(latest, figures)
        if (stopped) break
        if (!waiting && !figures) {
          rest = setTimeout(() => {
            figuresAt = 0
            void preview(latest)
          }, REST_MS)
        }
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    } finally {
      previewing = false
      stopped = false
    }
  }

  async function tryOut(changes: Change[], figures: boolean): Promise<void> {
    const body = {
      changes: [...pending.value.flatMap((b) => b.changes), ...changes], view: view.value, figures,
    }
    await sendForLines<PreviewLine>(`/api/projects/${id.value}/preview`, body, (line) => {
      if (stopped) return
      if (line.relief) relief.value = line.relief
      if (line.evaluation) {
        dragged.value = line.evaluation
        figuresAt = performance.now()
      }
    })
  }

  /** Forget a preview, either because the edit was made or because it was given up. */
  function endPreview(kept: boolean): void {
    waiting = null
    stopped = previewing
    clearTimeout(rest)
    if (kept) return
    dragged.value = null
    triggerRef(tables)
    void drawRelief()
  }

  async function rename(next: string): Promise<void> {
    await send(`/api/projects/${id.value}`, { name: next }, 'PATCH')
    name.value = next
  }

  return {
    id, name, revision, tables, catalogue, evaluation, dragged, shown, settings, relief, previousTally, view,
    pending, saving, offline, trouble, conflict, selection, ghost, floors, site, canUndo, canRedo,
    saveState, undoStack, redoStack, all, find, nextId, open, take, commit, undo, redo, flush,
    resolve, show, preview, endPreview, evaluateFully, rename,
  }
})
