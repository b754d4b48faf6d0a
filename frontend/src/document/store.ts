import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef, watch } from 'vue'
import { useAnswers } from '@/answers/useAnswers'
import { KINDS } from '@/api/design'
import { ApiError, api, taken } from '@/api/client'
import type {
  Answer, AnyElement, Catalogue, Change, ElementOf, Floor, ElementTables, Kind, Point, ProjectDocument,
} from '@/api/types'
import { Keeper, type Refused } from './keeper'
import {
  acknowledged, committed, extended, isConflict, opened, rebased, refused, resolved, stepped, takenUp,
  type Conflict, type Ledger,
} from './ledger'
import { applyTo, type Tables } from './tables'
import { movesWalls, useFollowing } from './following'

export interface Selection {
  kind: Kind
  id: string
}

const RETRY_MS = 2500
/** So often an edit that the server fails at, through no fault that it names, is tried. */
const MOST_TRIES = 4
/** Answered by a server whose disk is full. */
const NO_ROOM_THERE = 507
const NO_ROOM = 'This browser has no room left: what is not saved yet is lost when the page is closed.'

/** The open design: what was decided, what is not yet saved, steps back, and what the server makes of it. */
export const useDesign = defineStore('design', () => {
  const id = ref('')
  const name = ref('')
  const catalogue = shallowRef<Catalogue | null>(null)
  const ledger = shallowRef<Ledger>(opened(0, {}))
  const saving = ref(false)
  const offline = ref(false)
  const trouble = ref<{ message: string; detail: string[] } | null>(null)
  const conflict = shallowRef<Conflict | null>(null)
  /** Edits that the server would not have. */
  const refusals = shallowRef<Refused[]>([])
  const selection = ref<Selection | null>(null)
  /** Many things that are chosen together; one alone is the selection. */
  const picks = shallowRef<Selection[]>([])
  watch(selection, (one) => one && (picks.value = []))
  /** Where a mark is held while it is dragged or nudged, not yet part of the design. */
  const ghost = shallowRef<{ kind: Kind; id: string; at: Point } | null>(null)
  /** What a hand does just now, not yet part of the design. */
  const held = shallowRef<Change[]>([])
  const following = useFollowing({
    id: () => id.value,
    pending: () => pending.value,
    extend: (edit, more) => hold(extended(ledger.value, edit, more)),
  })
  let keeper = new Keeper('')
  let retry: ReturnType<typeof setTimeout> | undefined
  let tries = 0

  const tables = computed(() => ledger.value.tables)
  const revision = computed(() => ledger.value.revision)
  const pending = computed(() => ledger.value.pending)
  /** Storeys by building, that of the first rack before the others, from the lowest up. */
  const floors = computed(() => {
    const rack = all('equipment_room')[0]
    const first = rack && find('floor', rack.floor)?.building
    const order = (f: Floor) => `${f.building === first ? 0 : 1}${f.building}`
    return [...all('floor')].sort((a, b) => order(a).localeCompare(order(b)) || a.level - b.level)
  })
  const site = computed(() => all('site')[0])
  const canUndo = computed(() => ledger.value.undo.length > 0)
  const canRedo = computed(() => ledger.value.redo.length > 0)
  const saveState = computed(() => {
    const kept = pending.value.length
    if (conflict.value) return 'Two versions: choose which to keep'
    if (offline.value) return kept ? `Offline: ${kept} ${kept === 1 ? 'change' : 'changes'} kept here` : 'No connection'
    if (kept || saving.value) return 'Saving'
    return `Saved, revision ${revision.value}`
  })
  const answers = useAnswers({
    id: () => id.value,
    revision: () => revision.value,
    unsaved: () => pending.value.flatMap((b) => b.changes),
    reached: () => (offline.value = false),
    failed: (error) => {
      if (error.isOffline) offline.value = true
      else trouble.value = { message: error.message, detail: [] }
    },
  })
  /** The settings sheet last worked out: it stays up while the next is searched for. */
  const settings = computed(() => answers.evaluation.value?.settings ?? null)

  function all<K extends Kind>(kind: K): ElementOf<K>[] {
    return [...((tables.value[kind]?.values() ?? []) as Iterable<ElementOf<K>>)]
  }

  function find<K extends Kind>(kind: K, elementId: string): ElementOf<K> | undefined {
    return tables.value[kind]?.get(elementId) as ElementOf<K> | undefined
  }

  const heldTables = computed(() => (held.value.length ? applyTo(tables.value, held.value) : tables.value))
  /** The same as they look while something is held. */
  function drawn<K extends Kind>(kind: K): ElementOf<K>[] {
    return [...((heldTables.value[kind]?.values() ?? []) as Iterable<ElementOf<K>>)]
  }

  /** Choose these together: none and one are what a selection is. */
  function pick(chosen: Selection[]): void {
    selection.value = chosen.length === 1 ? chosen[0]! : null
    picks.value = chosen.length > 1 ? chosen : []
  }

  /** Add a thing to what is chosen, or leave it out. */
  function togglePick(kind: Kind, elementId: string): void {
    const all = picks.value.length ? picks.value : selection.value ? [selection.value] : []
    const others = all.filter((p) => p.kind !== kind || p.id !== elementId)
    pick(others.length < all.length ? others : [...all, { kind, id: elementId }])
  }

  function nextId(kind: Kind, stem: string): string {
    for (let n = 1; ; n++) if (!tables.value[kind]?.has(`${stem}-${n}`)) return `${stem}-${n}`
  }

  watch(ledger, ({ revision, undo, redo }) => keeper.saveSteps({ revision, undo: [...undo], redo: [...redo] }))

  /** Hold another state of the design; what waits to be saved is kept should the window close. */
  function hold(next: Ledger): void {
    ledger.value = next
    if (selection.value && !find(selection.value.kind, selection.value.id)) selection.value = null
    const left = picks.value.filter((p) => find(p.kind, p.id))
    if (left.length !== picks.value.length) picks.value = left
    try {
      keeper.save([...next.pending])
    } catch {
      trouble.value = { message: NO_ROOM, detail: [] }
    }
  }

  function holdRefused(edit: Refused): void {
    try {
      keeper.keepRefused(edit)
    } catch {
      trouble.value = { message: NO_ROOM, detail: [] }
    }
    refusals.value = [...refusals.value.filter((r) => r.id !== edit.id), edit]
  }

  const fetched = (project_id: string) => taken(api.GET('/api/projects/{project_id}', { params: { path: { project_id } } }))

  let opening = 0
  async function open(projectId: string): Promise<void> {
    // A plan that was opened from a file may have brought gear along.
    const mine = ++opening
    const [known, document] = await Promise.all([taken(api.GET('/api/catalogue')), fetched(projectId)])
    // Another was asked for meanwhile: that alone counts.
    if (mine !== opening) return
    catalogue.value = known
    answers.forget()
    id.value = document.id
    name.value = document.name
    selection.value = ghost.value = conflict.value = trouble.value = null
    held.value = picks.value = []
    following.forget()
    keeper = new Keeper(document.id)
    const steps = keeper.loadSteps(document.revision)
    const made = { ...opened(document.revision, tablesOf(document)), ...(steps && { undo: steps.undo, redo: steps.redo }) }
    const kept = keeper.load()
    refusals.value = keeper.refused()
    tries = 0
    clearTimeout(retry)
    ledger.value = takenUp(made, kept)
    if (kept.length) void flush()
    await answers.evaluate()
  }

  function tablesOf(document: ProjectDocument): Tables {
    const made: Tables = {}
    for (const kind of KINDS) {
      const rows = (document.elements as ElementTables)[kind] ?? []
      made[kind] = new Map(rows.map((row) => [row.id, row as AnyElement]))
    }
    return made
  }

  /**
   * Make an edit: it shows at once, can be undone, and is saved in the background. Where walls move, rooms
   * follow; `whole` is an edit that says already what they do.
   */
  function commit(label: string, changes: Change[], whole = false): void {
    if (!changes.length) return
    const edit = crypto.randomUUID()
    const moves = !whole && movesWalls(tables.value, changes)
    hold(committed(ledger.value, edit, label, changes))
    following.forget()
    if (moves) following.follow(edit)
    void flush()
  }

  function undo(): void {
    hold(stepped(ledger.value, crypto.randomUUID(), 'undo'))
    void flush()
  }

  function redo(): void {
    hold(stepped(ledger.value, crypto.randomUUID(), 'redo'))
    void flush()
  }

  async function flush(): Promise<void> {
    if (saving.value || conflict.value) return
    const project = id.value
    saving.value = true
    clearTimeout(retry)
    try {
      while (pending.value.length && !conflict.value) {
        await following.settled(pending.value[0]!.id)
        if (!pending.value.length || !(await saveFirst())) break
      }
    } finally {
      saving.value = false
    }
    // Another project was opened while an edit of the one before was on its way.
    if (project !== id.value) void flush()
  }

  /** Save the oldest edit; false when the server cannot be reached and it will be tried later. */
  async function saveFirst(): Promise<boolean> {
    const first = pending.value[0]!
    const [project, itsKeeper] = [id.value, keeper]
    try {
      const answer = await answers.save({ revision: revision.value, label: first.label, changes: first.changes })
      if (project !== id.value) {
        itsKeeper.forget(first.id)
        return false
      }
      tries = 0
      saved(answer)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      // What is not saved is kept with its own project, and sent when that is open again.
      if (project !== id.value) return false
      if (error.isOffline || (!error.isRefusal && ++tries < MOST_TRIES)) {
        offline.value = true
        if (error.status === NO_ROOM_THERE) trouble.value = { message: error.message, detail: [] }
        retry = setTimeout(() => void flush(), RETRY_MS)
        return false
      }
      tries = 0
      if (error.status === 409) rebase(error)
      else return await refuse(first, error)
    }
    return true
  }

  function saved(answer: Answer): void {
    offline.value = false
    hold(acknowledged(ledger.value, answer.revision))
    if (!pending.value.length) answers.settle(answer)
  }

  /** Somebody saved in between. */
  function rebase(error: ApiError): void {
    const outcome = rebased(ledger.value, error.since, error.body['revision'] as number)
    if (isConflict(outcome)) conflict.value = outcome
    else hold(outcome)
    answers.schedule()
  }

  function resolve(keepMine: boolean): void {
    if (!conflict.value) return
    hold(resolved(ledger.value, conflict.value, keepMine))
    conflict.value = null
    answers.schedule()
    void flush()
  }

  /** The server will not have it: take the edit back, keep it and say why; those behind it go on. */
  async function refuse(edit: { id: string; label: string; changes: Change[] }, error: ApiError): Promise<boolean> {
    const project = id.value
    let document: ProjectDocument
    try {
      document = await fetched(project)
    } catch (unreached) {
      if (!(unreached instanceof ApiError)) throw unreached
      // Gone, or out of reach meanwhile: nothing is taken back before the server says what it has.
      if (unreached.status === 404) trouble.value = { message: 'This project is gone from the server. What is not saved is kept here.', detail: [] }
      else retry = setTimeout(() => void flush(), RETRY_MS)
      offline.value = true
      return false
    }
    if (project !== id.value) return false
    trouble.value = {
      message: `"${edit.label}" was taken back. ${error.message}`,
      detail: error.problems.slice(1, 4).map((p) => `${p.where}: ${p.what}`),
    }
    const { id: edited, label, changes } = edit
    holdRefused({ id: edited, label, changes, why: error.message })
    hold(refused(ledger.value, document.revision, tablesOf(document)))
    answers.endPreview(false)
    answers.schedule()
    return true
  }

  /** Make an edit anew that was refused, on the design as it is by now. */
  function makeAnew(edit: Refused): void {
    throwAway(edit)
    commit(edit.label, edit.changes)
  }

  function throwAway(edit: Refused): void {
    keeper.dropRefused(edit.id)
    refusals.value = refusals.value.filter((r) => r.id !== edit.id)
  }

  function endPreview(kept: boolean): void {
    answers.endPreview(kept)
    if (!kept) triggerRef(ledger)
  }

  async function rename(next: string): Promise<void> {
    await taken(api.PATCH('/api/projects/{project_id}', { params: { path: { project_id: id.value } }, body: { name: next } }))
    name.value = next
  }

  const { evaluation, dragged, shown, findings, relief, previous, view, show, preview } = answers
  return {
    id, name, revision, tables, catalogue, evaluation, dragged, shown, findings, settings, relief, previous,
    view, pending, saving, held, questions: following.questions, drawn, offline, trouble, conflict, selection, picks, pick, togglePick, ghost, floors, site, canUndo, canRedo, saveState,
    refusals, makeAnew, throwAway, all, find, nextId, open, commit, undo, redo, flush, resolve, show, preview, endPreview, rename,
    evaluateFully: answers.evaluate,
  }
})
