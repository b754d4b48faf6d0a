import { describe, expect, it } from 'vitest'
import type { AnyElement, Change } from '@/api/types'
import {
  acknowledged, committed, extended, isConflict, opened, rebased, refused, resolved, stepped, takenUp,
  type Ledger,
} from '@/document/ledger'
import { removalOf } from '@/document/removal'
import { applyTo, inverseOf, type Tables } from '@/document/tables'

const wall = (id: string, construction = 'brick-single'): AnyElement =>
  ({ id, floor: 'f', a: [0, 0], b: [1, 0], construction }) as AnyElement
const put = (id: string, construction?: string): Change => ({ op: 'put', kind: 'wall', element: wall(id, construction) })
const drop = (id: string): Change => ({ op: 'remove', kind: 'wall', id })
const table = (...rows: AnyElement[]) => new Map(rows.map((row) => [row.id, row]))
const start = (): Ledger => opened(1, { wall: table(wall('w1'), wall('w2')) })
const walls = (ledger: Ledger) => [...(ledger.tables.wall?.values() ?? [])]

describe('steps', () => {
  it('an edit shows at once, waits to be saved and can be undone and redone', () => {
    const edited = committed(start(), 'a', 'Build', [put('w3'), drop('w1')])
    expect(walls(edited).map((w) => w.id)).toEqual(['w2', 'w3'])
    expect(edited.pending.map((p) => p.label)).toEqual(['Build'])
    const back = stepped(edited, 'b', 'undo')
    expect(new Set(walls(back).map((w) => w.id))).toEqual(new Set(['w1', 'w2']))
    expect(back.pending.map((p) => p.label)).toEqual(['Build', 'Undo: Build'])
    const again = stepped(back, 'c', 'redo')
    expect(walls(again).map((w) => w.id)).toEqual(['w2', 'w3'])
    expect([again.undo.length, again.redo.length]).toEqual([1, 0])
    expect(stepped(start(), 'd', 'undo')).toEqual(start())
  })

  it('a new edit forgets what was undone', () => {
    const back = stepped(committed(start(), 'a', 'Build', [put('w3')]), 'b', 'undo')
    expect(committed(back, 'c', 'Other', [drop('w2')]).redo).toEqual([])
  })

  it('tables that no change touches stay the same objects', () => {
    const tables: Tables = { wall: table(wall('w1')), floor: table() }
    const next = applyTo(tables, [put('w2')])
    expect(next.floor).toBe(tables.floor)
    expect(next.wall).not.toBe(tables.wall)
    expect(applyTo(next, inverseOf(tables, [put('w2')])).wall).toEqual(tables.wall)
  })
})

describe('what follows from an edit', () => {
  it('is saved with it and taken back with it', () => {
    const edited = committed(start(), 'a', 'Build', [put('w3')])
    const wider = extended(committed(edited, 'b', 'Other', [put('w4')]), 'a', [put('w1', 'stone'), put('w5')])
    expect(wider.pending.map((p) => p.changes.length)).toEqual([3, 1])
    const back = stepped(stepped(wider, 'c', 'undo'), 'd', 'undo')
    expect(walls(back)).toEqual(walls(start()))
    expect(walls(stepped(stepped(back, 'e', 'redo'), 'f', 'redo'))).toHaveLength(5)
  })

  it('comes to nothing where the edit was taken back, or a later one says otherwise', () => {
    const edited = committed(start(), 'a', 'Build', [put('w3')])
    const back = stepped(edited, 'b', 'undo')
    expect(extended(back, 'a', [put('w1', 'stone')])).toBe(back)
    const other = committed(edited, 'b', 'Other', [put('w1', 'metal')])
    expect(extended(other, 'a', [put('w1', 'stone')])).toBe(other)
    const saved = acknowledged(edited, 2)
    expect(extended(saved, 'a', [put('w1', 'stone')])).toBe(saved)
  })

  it('goes along when a later edit is refused', () => {
    const wider = extended(committed(committed(start(), 'a', 'Build', [put('w3')]), 'b', 'Other', [put('w4')]), 'a', [put('w5')])
    const left = refused(acknowledged(wider, 2), 2, { wall: table(wall('w1'), wall('w2'), wall('w3'), wall('w5')) })
    expect(walls(stepped(left, 'c', 'undo')).map((w) => w.id)).toEqual(['w1', 'w2'])
  })
})

describe('saving', () => {
  const edited = committed(committed(start(), 'a', 'One', [put('w3')]), 'b', 'Two', [put('w4')])

  it('the oldest edit is acknowledged first', () => {
    const saved = acknowledged(edited, 2)
    expect([saved.revision, saved.pending.map((p) => p.label)]).toEqual([2, ['Two']])
    expect(walls(saved)).toHaveLength(4)
  })

  it('edits kept from before are taken up on top of what was saved', () => {
    const found = takenUp(start(), [{ id: 'x', label: 'Kept', changes: [put('w9')] }])
    expect(walls(found).map((w) => w.id)).toContain('w9')
    expect(found.pending).toHaveLength(1)
  })

  it('what others changed elsewhere goes in beneath', () => {
    const outcome = rebased(edited, [put('w7')], 5)
    expect(isConflict(outcome)).toBe(false)
    expect((outcome as Ledger).revision).toBe(5)
    expect((outcome as Ledger).pending).toHaveLength(2)
    expect(walls(outcome as Ledger).map((w) => w.id)).toContain('w7')
  })

  it('an edit whose answer was lost is known again', () => {
    const outcome = rebased(edited, [put('w3')], 2) as Ledger
    expect([outcome.revision, outcome.pending.map((p) => p.label)]).toEqual([2, ['Two']])
  })

  it('the same element changed twice is asked about', () => {
    const mine = committed(start(), 'a', 'Mine', [put('w1', 'concrete')])
    const outcome = rebased(mine, [put('w1', 'metal')], 4)
    if (!isConflict(outcome)) throw new Error('should ask')
    const kept = resolved(mine, outcome, true)
    expect((kept.tables.wall!.get('w1') as { construction: string }).construction).toBe('concrete')
    expect([kept.revision, kept.pending.length, kept.undo.length]).toEqual([4, 1, 1])
    const theirs = resolved(mine, outcome, false)
    expect((theirs.tables.wall!.get('w1') as { construction: string }).construction).toBe('metal')
    expect([theirs.pending, theirs.undo]).toEqual([[], []])
  })

  it('a refusal takes back the edit alone and keeps the steps before', () => {
    const before = acknowledged(committed(start(), 'a', 'Good', [put('w3')]), 2)
    const bad = committed(before, 'b', 'Bad', [drop('w1')])
    const after = refused(bad, 2, before.tables)
    expect(walls(after).map((w) => w.id)).toEqual(['w1', 'w2', 'w3'])
    expect([after.pending.length, after.undo.map((b) => b.label)]).toEqual([0, ['Good']])
  })

  it('a refused edit keeps none of those behind it from going on', () => {
    const before = committed(start(), 'a', 'Good', [put('w3')])
    const bad = committed(acknowledged(before, 2), 'b', 'Bad', [drop('w1')])
    const more = committed(committed(bad, 'c', 'After', [put('w4')]), 'd', 'Last', [put('w2', 'glass')])
    const after = refused(more, 2, before.tables)
    expect(after.pending.map((p) => [p.id, p.label])).toEqual([['c', 'After'], ['d', 'Last']])
    expect(walls(after).map((w) => w.id)).toEqual(['w1', 'w2', 'w3', 'w4'])
    expect(after.undo.map((b) => b.label)).toEqual(['Good', 'After', 'Last'])
    const back = stepped(after, 'e', 'undo')
    expect(walls(back).find((w) => w.id === 'w2')).toEqual(wall('w2'))
  })
})

describe('removal', () => {
  const element = (row: object) => row as AnyElement
  const tables: Tables = {
    building: table(element({ id: 'b' })),
    floor: table(element({ id: 'f', building: 'b' })),
    wall: table(wall('w1')),
    opening: table(element({ id: 'o', wall: 'w1' })),
    equipment_room: table(element({ id: 'r1', floor: 'f' }), element({ id: 'r2', floor: 'f' })),
    device: table(element({ id: 'd', floor: 'f' })),
    run: table(element({ id: 'run', device: 'd', equipment_room: 'r2', category: null })),
    uplink: table(element({ id: 'u', room: 'r2', to: 'r1' })),
    switch: table(element({ id: 's', equipment_room: 'r2' })),
    network: table(element({ id: 'n1', reaches: ['n2', 'n3'], shut: [] }), element({ id: 'n2', reaches: [], shut: [] })),
    wireless_name: table(element({ id: 'name', network: 'n2', access_points: [] }), element({ id: 'kept', network: 'n1', access_points: ['d', 'e'] })),
    membership: table(element({ id: 'm', network: 'n1', device: 'd', switch: null }), element({ id: 'm2', network: 'n1', device: null, switch: 's' })),
  }

  it('takes what stands on it, dependants first', () => {
    expect(removalOf(tables, 'wall', 'w1')).toEqual([
      { op: 'remove', kind: 'opening', id: 'o' }, { op: 'remove', kind: 'wall', id: 'w1' },
    ])
  })

  it('leaves what only mentions it, without the mention', () => {
    const room = removalOf(tables, 'equipment_room', 'r2')
    expect(room[0]).toMatchObject({ op: 'put', kind: 'run', element: { id: 'run', equipment_room: null } })
    expect(room.slice(1).map((c) => c.kind)).toEqual(['membership', 'switch', 'uplink', 'equipment_room'])
    const network = removalOf(tables, 'network', 'n2')
    expect(network[0]).toMatchObject({ op: 'put', element: { id: 'n1', reaches: ['n3'] } })
    expect(network.slice(1).map((c) => c.kind)).toEqual(['wireless_name', 'network'])
  })

  it('takes the network that somebody chose for an end with the end', () => {
    const device = removalOf(tables, 'device', 'd')
    expect(device[0]).toMatchObject({ op: 'put', kind: 'wireless_name', element: { id: 'kept', access_points: ['e'] } })
    expect(device.filter((c) => c.op === 'remove').map((c) => (c as { id: string }).id)).toEqual(['m', 'run', 'd'])
  })

  it('takes each thing once, however many ways lead to it', () => {
    const all = removalOf(tables, 'building', 'b').filter((c) => c.op === 'remove')
    expect(new Set(all.map((c) => `${c.kind} ${(c as { id: string }).id}`)).size).toBe(all.length)
    expect(all.at(-1)).toMatchObject({ kind: 'building' })
    const after = applyTo(tables, removalOf(tables, 'building', 'b'))
    expect(after.device!.size + after.run!.size + after.switch!.size + after.uplink!.size).toBe(0)
  })
})
