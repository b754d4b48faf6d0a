import { describe, expect, it } from 'vitest'
import { filled, patched } from '@/answers/patch'
import type { ChapterPatch, Evaluation } from '@/api/types'

const run = (id: string, fixed_m: number) => ({ id, fixed_m })
const before = {
  plan: { findings: [] },
  cable: { runs: [run('a', 1), run('b', 2), run('c', 3)], uplinks: [], findings: [] },
  power: { ports: [{ switch: 's', port: 1, name: null }, { switch: 's', port: 2, name: 'x' }], proven: true },
  settings: { networks: [{ id: 'n' }], mesh: false },
  totals: { cable_m: 6, price: 10 },
} as unknown as Evaluation
const rows = (put: object[], gone: string[] = [], order?: string[]) => ({ put, gone, ...(order && { order }) })
const apply = (patch: object) => patched(before, patch as Record<string, ChapterPatch>)

describe('a patch', () => {
  it('puts rows in their place and leaves all others the same objects', () => {
    const after = apply({ cable: { set: {}, rows: { runs: rows([run('b', 9)]) } }, totals: { set: { cable_m: 13 }, rows: {} } })
    expect(after.cable.runs.map((r) => r.fixed_m)).toEqual([1, 9, 3])
    expect(after.cable.runs[0]).toBe(before.cable.runs[0])
    expect(after.power).toBe(before.power)
    expect(after.totals).toEqual({ cable_m: 13, price: 10 })
    expect(before.cable.runs[1]).toEqual(run('b', 2))
  })

  it('takes rows away, adds new ones last, or in the order that is said', () => {
    const change = { cable: { set: {}, rows: { runs: rows([run('d', 4)], ['a']) } } }
    expect(apply(change).cable.runs.map((r) => r.id)).toEqual(['b', 'c', 'd'])
    change.cable.rows.runs.order = ['d', 'c', 'b']
    expect(apply(change).cable.runs.map((r) => r.id)).toEqual(['d', 'c', 'b'])
  })

  it('tells rows apart by all the fields of their key', () => {
    const after = apply({ power: { set: {}, rows: { ports: rows([{ switch: 's', port: 2, name: 'y' }]) } } })
    expect(after.power.ports.map((p) => p.name)).toEqual([null, 'y'])
  })
})

describe('a whole evaluation', () => {
  it('keeps of the last one what was not worked out this time', () => {
    const preview = { ...before, settings: null, totals: { cable_m: 1 } } as unknown as Evaluation
    expect(filled(preview, before).settings).toBe(before.settings)
    expect(filled(preview, before).totals.cable_m).toBe(1)
    expect(filled(preview, null)).toBe(preview)
  })
})
