import { createEventHook, createSharedComposable, useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { Snag, StepStand, TestedCable } from '@/api/types'
import { dropFrom, entriesIn, keepIn, nextOrder, type Entry, type Kind, type Rows, type Shot } from './entries'
import { pictures } from './pictures'
import { refusedRows } from './refusals'

const TRY_AGAIN_MS = 4000
/** What the server failed at, through no fault that it can name, is not asked of it with every round. */
const REST_MS = 30_000
/** A call that hangs, as where a connection fades, keeps nothing waiting for longer. */
const WORDS_MS = 20_000
const PICTURE_MS = 120_000
/** Tests are taken one by one. */
const MOST_AT_ONCE = { ticks: 100, snags: 100, tests: 1, shots: 1 }

/** What the server knows of a project's steps, snags or cables after it took what was said. */
export interface Answered {
  project: string
  stands?: StepStand[]
  snags?: Snag[]
  cables?: TestedCable[]
}

/** Who speaks, on this device. */
export const useWho = createSharedComposable(() => useLocalStorage('heathrise-who', ''))

/**
 * What was said on site, whichever project it is about and whichever is open: kept on this device first, sent
 * when the server answers, and let go only when the server has it. What it refuses stays, with the reason,
 * until a person mends it or throws it away; nothing else waits for it.
 */
export const useOutbox = defineStore('outbox', () => {
  const entries = shallowRef<Entry[]>(entriesIn(localStorage))
  const offline = ref(false)
  const whyNot = ref('')
  /** How far this device's clock goes ahead of the server's, in s. */
  const aheadS = ref(0)
  const full = ref(false)
  const answered = createEventHook<Answered>()
  const tried = new Map<string, number>()
  const waiting = computed(() => entries.value.filter((e) => !e.refused))
  const refused = computed(() => entries.value.filter((e) => e.refused))
  let sending = false
  let again = false
  let adopted = false

  const load = () => (entries.value = entriesIn(localStorage))
  const waitingOf = <K extends Kind>(kind: K, project: string) => waiting.value.filter((e) => e.kind === kind && e.project === project) as Entry<K>[]

  /** Keep what was said; false where this device has no room for it. */
  function write(entry: Entry): boolean {
    try {
      keepIn(localStorage, entry)
      full.value = false
    } catch {
      full.value = true
    }
    load()
    return !full.value
  }

  function keep<K extends Kind>(kind: K, project: string, site: string, title: string, row: Rows[K]): boolean {
    const entry: Entry = { kind, project, site, title, order: nextOrder(load()), row, why: '', refused: false }
    const kept = write(entry)
    void navigator.storage?.persist?.().catch(() => false)
    void send()
    return kept
  }

  async function photograph(project: string, site: string, title: string, about: Pick<Shot, 'of' | 'about' | 'by'>, picture: Blob): Promise<boolean> {
    const shot: Shot = { ...about, key: crypto.randomUUID(), at: new Date().toISOString() }
    try {
      await pictures.keep(project, shot, picture)
    } catch {
      full.value = true
      return false
    }
    return keep('shots', project, site, title, shot)
  }

  async function drop(entry: Entry): Promise<void> {
    dropFrom(localStorage, entry)
    tried.delete(entry.row.key)
    load()
    if (entry.kind === 'shots') await pictures.drop(entry.project, entry.row as Shot)
  }

  /** What a person has mended, or wants to try as it is. */
  function sendAgain(entry: Entry, row: Entry['row'] = entry.row): void {
    tried.delete(entry.row.key)
    write({ ...entry, row, why: '', refused: false })
    void send()
  }

  async function send(): Promise<void> {
    again = true
    if (sending) return
    sending = true
    try {
      while (again) {
        again = false
        // One window at a time; what two would send is written once all the same.
        if (navigator.locks) await navigator.locks.request('heathrise-outbox', round)
        else await round()
        offline.value = false
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      offline.value = true
      whyNot.value = error.status ? error.message : 'No connection; it goes by itself when there is one.'
    } finally {
      sending = false
    }
  }

  async function round(): Promise<void> {
    load()
    if (!adopted) await adopt()
    const rested = (e: Entry) => !e.why || Date.now() - (tried.get(e.row.key) ?? 0) > REST_MS
    const lists = new Map<string, Entry[]>()
    for (const e of waiting.value.filter((e) => e.kind !== 'shots' && rested(e))) {
      const list = `${e.kind} ${e.project}`
      lists.set(list, [...(lists.get(list) ?? []), e])
    }
    for (const list of lists.values()) {
      await together(list.filter((e) => !e.why))
      for (const e of list.filter((e) => e.why)) await alone(e)
    }
    // Pictures are large: what is said goes before them, and of each picture in the next round.
    for (const shot of waiting.value.filter((e) => e.kind === 'shots' && rested(e))) {
      await alone(shot)
      again = true
    }
  }

  /** Take up pictures that were kept when the page was closed on them, once for each time it is opened. */
  async function adopt(): Promise<void> {
    for (const { project, shot } of await pictures.without(entries.value)) {
      write({ kind: 'shots', project, site: '', title: '', order: nextOrder(entries.value), row: shot, why: '', refused: false })
    }
    adopted = true
  }

  /** Send rows of one list; where some are refused those stay here and all others go. */
  async function together(list: Entry[]): Promise<void> {
    let left = list
    while (left.length) {
      const part = left.slice(0, MOST_AT_ONCE[list[0]!.kind])
      try {
        await post(part)
        left = left.slice(part.length)
      } catch (error) {
        if (!(error instanceof ApiError) || error.isOffline) throw error
        const said = refusedRows(error.problems, part[0]!.kind === 'ticks' ? 'ticks' : 'said')
        for (const [k, why] of said) if (part[k]) write({ ...part[k], why, refused: true })
        if (said.size) left = left.filter((e) => !part.some((p, k) => p === e && said.has(k)))
        else {
          for (const e of part) await alone(e)
          left = left.slice(part.length)
        }
      }
    }
  }

  async function alone(entry: Entry): Promise<void> {
    tried.set(entry.row.key, Date.now())
    try {
      if (entry.kind === 'shots') await upload(entry as Entry<'shots'>)
      else await post([entry])
    } catch (error) {
      if (!(error instanceof ApiError) || error.isOffline) throw error
      // What is the server's own failing is tried again; what is not waits for a person.
      write({ ...entry, why: error.message, refused: error.isRefusal })
    }
  }

  async function post(part: Entry[]): Promise<void> {
    const [{ project, kind }] = part as [Entry]
    const params = { path: { project_id: project } }
    const clock = new Date().toISOString()
    const signal = AbortSignal.timeout(WORDS_MS)
    if (kind === 'ticks') {
      const body = { ticks: part.map((e) => e.row as Rows['ticks']), clock }
      const { stands, clock_ahead_s } = await taken(api.POST('/api/projects/{project_id}/work', { params, body, signal }))
      aheadS.value = clock_ahead_s ?? 0
      await letGo(part)
      void answered.trigger({ project, stands })
    } else if (kind === 'tests') {
      const body = { ...(part[0]!.row as Rows['tests']), clock }
      const { cables } = await taken(api.POST('/api/projects/{project_id}/tests', { params, body, signal }))
      await letGo(part)
      void answered.trigger({ project, cables })
    } else {
      const body = { said: part.map((e) => e.row as Rows['snags']), clock }
      const { snags, clock_ahead_s } = await taken(api.POST('/api/projects/{project_id}/snags', { params, body, signal }))
      aheadS.value = clock_ahead_s ?? 0
      await letGo(part)
      void answered.trigger({ project, snags })
    }
  }

  async function letGo(part: Entry[]): Promise<void> {
    for (const e of part) await drop(e)
  }

  /** Send a picture; that it is about a step or a snag is said under the same key, so once. */
  async function upload(entry: Entry<'shots'>): Promise<void> {
    const { project, row } = entry
    const picture = await pictures.get(project, row)
    if (!picture) throw new ApiError(410, 'The browser has let go of this picture; take it again.')
    const form = new FormData()
    form.append('picture', picture, 'photo.jpg')
    const { id } = await taken(api.POST('/api/projects/{project_id}/pictures', { params: { path: { project_id: project } }, ...file(form), signal: AbortSignal.timeout(PICTURE_MS) }))
    const said = { key: row.key, state: null, photo: id, by: row.by || 'installer', at: row.at }
    const told: Entry = row.of === 'step'
      ? { ...entry, kind: 'ticks', row: { ...said, step: row.about, reason: '', note: '', licensed_by: '', minutes: null }, why: '', refused: false }
      : { ...entry, kind: 'snags', row: { ...said, snag: row.about, what: '', kind: '', owner: '', element: null, floor: null, due: null }, why: '', refused: false }
    if (!write(told)) throw new ApiError(507, 'This device has no room left to note the picture.')
    await drop(entry)
  }

  useIntervalFn(() => void (waiting.value.length && send()), TRY_AGAIN_MS)
  useEventListener('online', () => void send())
  useEventListener('storage', () => load())
  void send()
  return { entries, waiting, refused, offline, whyNot, aheadS, full, waitingOf, keep, photograph, sendAgain, throwAway: drop, send, onAnswered: answered.on }
})
