import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef, watch } from 'vue'
import { useAnswers } from '@/answers/useAnswers'
import { KINDS } from '@/api/design'
import { ApiError, api, taken } from '@/api/client'
import type {
  Answer, AnyElement, Catalogue, Change, ElementOf, Floor, ElementTables, Kind, Point, ProjectDocument,
} from '@/api/types'
import { Keeper } from './keeper'
import {
  acknowledged, committed, isConflict, opened, rebased, refused, resolved, stepped, takenUp,
  type Conflict, type Ledger,
} from './ledger'
import type { Tables } from './tables'

export interface Selection {
  kind: Kind
  id: string
}

const RETRY_MS = 2500

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
  const selection = ref<Selection | null>(null)
  /** Where a mark is held while it is dragged or nudged, not yet part of the design. */
  const ghost = shallowRef<{ kind: Kind; id: string; at: Point } | null>(null)
  let keeper = new Keeper('')
  let retry: ReturnType<typeof setTimeout> | undefined

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
    if (offline.value) return `Offline: ${kept} ${kept === 1 ? 'change' : 'changes'} kept here`
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

  function nextId(kind: Kind, stem: string): string {
    for (let n = 1; ; n++) if (!tables.value[kind]?.has(`${stem}-${n}`)) return `${stem}-${n}`
  }

  watch(ledger, ({ revision, undo, redo }) => keeper.saveSteps({ revision, undo: [...undo], redo: [...redo] }))

  /** Hold another state of the design; what waits to be saved is kept should the window close. */
  function hold(next: Ledger): void {
    ledger.value = next
    if (selection.value && !find(selection.value.kind, selection.value.id)) selection.value = null
    keeper.save([...next.pending])
  }

  const fetched = (project_id: string) => taken(api.GET('/api/projects/{project_id}', { params: { path: { project_id } } }))

  async function open(projectId: string): Promise<void> {
    catalogue.value ??= await taken(api.GET('/api/catalogue'))
    const document = await fetched(projectId)
    answers.forget()
    id.value = document.id
    name.value = document.name
    selection.value = ghost.value = conflict.value = trouble.value = null
    keeper = new Keeper(document.id)
    const steps = keeper.loadSteps(document.revision)
    const made = { ...opened(document.revision, tablesOf(document)), ...(steps && { undo: steps.undo, redo: steps.redo }) }
    const kept = keeper.load()
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

  /** Make an edit: it shows at once, can be undone, and is saved in the background. */
  function commit(label: string, changes: Change[]): void {
    if (!changes.length) return
    hold(committed(ledger.value, crypto.randomUUID(), label, changes))
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
    saving.value = true
    clearTimeout(retry)
    try {
      while (pending.value.length && !conflict.value && (await saveFirst()));
    } finally {
      saving.value = false
    }
  }

  /** Save the oldest edit; false when the server cannot be reached and it will be tried later. */
  async function saveFirst(): Promise<boolean> {
    const { label, changes } = pending.value[0]!
    try {
      saved(await answers.save({ revision: revision.value, label, changes }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (error.isOffline) {
        offline.value = true
        retry = setTimeout(() => void flush(), RETRY_MS)
        return false
      }
      if (error.status === 409) rebase(error)
      else await refuse(label, error)
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

  /** The server will not have it: take the edit back and say why. */
  async function refuse(label: string, error: ApiError): Promise<void> {
    trouble.value = {
      message: `"${label}" was taken back. ${error.message}`,
      detail: error.problems.slice(1, 4).map((p) => `${p.where}: ${p.what}`),
    }
    const document = await fetched(id.value)
    hold(refused(ledger.value, document.revision, tablesOf(document)))
    answers.endPreview(false)
    answers.schedule()
  }

  function endPreview(kept: boolean): void {
    answers.endPreview(kept)
    if (!kept) triggerRef(ledger)
  }

  async function rename(next: string): Promise<void> {
    await taken(api.PATCH('/api/projects/{project_id}', { params: { path: { project_id: id.value } }, body: { name: next } }))
    name.value = next
  }

  const { evaluation, dragged, shown, findings, relief, previousTally, view, show, preview } = answers
  return {
    id, name, revision, tables, catalogue, evaluation, dragged, shown, findings, settings, relief, previousTally,
    view, pending, saving, offline, trouble, conflict, selection, ghost, floors, site, canUndo, canRedo, saveState,
    all, find, nextId, open, commit, undo, redo, flush, resolve, show, preview, endPreview, rename,
    evaluateFully: answers.evaluate,
  }
})
