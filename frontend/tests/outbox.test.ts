import { describe, expect, it } from 'vitest'
import { dropFrom, entriesIn, keepIn, nextOrder, type Entry } from '@/outbox/entries'
import { clockOff } from '@/outbox/clocks'
import { refusedRows } from '@/outbox/refusals'

class Kept implements Storage {
  private rows = new Map<string, string>()
  get length() { return this.rows.size }
  clear = () => this.rows.clear()
  key = (k: number) => [...this.rows.keys()][k] ?? null
  getItem = (name: string) => this.rows.get(name) ?? null
  setItem = (name: string, text: string) => void this.rows.set(name, text)
  removeItem = (name: string) => void this.rows.delete(name)
}

const entry = (key: string, order: number, project = 'p-1'): Entry<'ticks'> => ({
  kind: 'ticks', project, site: 'Mill', title: 'Safe', order, why: '', refused: false,
  row: { key, step: 'safe', state: 'done', by: 'Jo', at: null, reason: '', note: '', licensed_by: '', minutes: null, photo: null },
})
const keys = (storage: Storage) => entriesIn(storage).map((e) => e.row.key)

describe('what waits on this device', () => {
  it('comes back in the order in which it was said, whichever project it is about', () => {
    const storage = new Kept()
    for (const e of [entry('bbbbbbbb', 2), entry('aaaaaaaa', 1, 'p-2'), entry('cccccccc', 2, 'p-2')]) keepIn(storage, e)
    expect(keys(storage)).toEqual(['aaaaaaaa', 'bbbbbbbb', 'cccccccc'])
    expect(nextOrder(entriesIn(storage))).toBe(3)
  })

  it('two windows never write over each other, and only what is dropped goes', () => {
    const storage = new Kept()
    const [one, other] = [entry('aaaaaaaa', 1), entry('bbbbbbbb', 1)]
    keepIn(storage, one)
    keepIn(storage, other)
    keepIn(storage, { ...one, why: 'minutes: too many', refused: true })
    dropFrom(storage, other)
    expect(entriesIn(storage)).toMatchObject([{ why: 'minutes: too many', refused: true }])
  })

  it('what an earlier version kept as a list is taken up, and what is no entry stays where it is', () => {
    const storage = new Kept()
    storage.setItem('heathrise-ticks-p-7', JSON.stringify([entry('aaaaaaaa', 0).row, entry('bbbbbbbb', 0).row]))
    storage.setItem('heathrise-snags-p-7', JSON.stringify([{ key: 'cccccccc', snag: 's-1', what: 'Plate', by: 'Jo' }]))
    storage.setItem('heathrise-ticks-p-8', '[{"key":')
    storage.setItem('heathrise-out:ticks:p-1:zzz', 'not JSON')
    expect(new Set(keys(storage))).toEqual(new Set(['aaaaaaaa', 'bbbbbbbb', 'cccccccc']))
    expect(entriesIn(storage).every((e) => e.project === 'p-7')).toBe(true)
    expect([storage.getItem('heathrise-ticks-p-7'), storage.getItem('heathrise-ticks-p-8')]).toEqual([null, '[{"key":'])
  })
})

describe('what the server says against it', () => {
  it('names rows, each with all that is wrong with it', () => {
    const said = refusedRows(
      [{ where: 'ticks[0].minutes', what: 'too many' }, { where: 'ticks[0].by', what: 'empty' }, { where: 'ticks[12]', what: 'no' }, { where: 'said[3].what', what: 'x' }, { where: 'ticks', what: 'y' }],
      'ticks',
    )
    expect([...said]).toEqual([[0, 'minutes: too many; by: empty'], [12, 'no']])
  })

  it('a clock that goes wrong is told in words', () => {
    expect([clockOff(86_400), clockOff(-600), clockOff(-9 * 86_400)]).toEqual(['24 h ahead', '10 min behind', '9 days behind'])
  })
})
