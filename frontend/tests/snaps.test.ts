import { describe, expect, it } from 'vitest'
import type { Point, Wall } from '@/api/types'
import { aimed, snapTo } from '@/document/snaps'

const wall = (a: Point, b: Point): Wall => ({ id: `${a}`, floor: 'f', a, b, construction: 'stone', rated: false })
const REACH_M = 0.4
/** A south side, a west side, and a slanted wall far off. */
const WALLS = [wall([0, 0], [8, 0]), wall([0, 0], [0, 5]), wall([12, 0], [16, 4])]

describe('what a point is meant for', () => {
  it.each([
    ['end', [7.8, 0.2], [8, 0]],
    ['middle', [4.1, 0.2], [4, 0]],
    ['wall', [2.3, 0.2], [2.3, 0]],
    ['in line', [10.05, -2.03], [10.01, -1.99]],
    ['level', [8.1, 3.03], [8, 3.05]],
    ['grid', [5.51, 2.02], [5.5, 2]],
  ])('%s', (to, at, where) => {
    const snap = snapTo(at as Point, WALLS, REACH_M)
    expect(snap.to).toBe(to)
    expect(snap.at[0]).toBeCloseTo(where[0] as number, 2)
    expect(snap.at[1]).toBeCloseTo(where[1] as number, 2)
  })

  it('where two walls cross, before either of them', () => {
    expect(snapTo([3.1, 2.9], [wall([0, 0], [10, 10]), wall([0, 6], [5, 1])], REACH_M)).toEqual({ to: 'crossing', at: [3, 3] })
  })

  it('on a wall, level with an end across the room', () => {
    const snap = snapTo([8.1, 0.1], [wall([-3, 0], [20, 0]), wall([8, 5], [8, 9])], REACH_M)
    expect(snap).toMatchObject({ to: 'wall', at: [8, 0], guide: [[8, 5], [8, 0.1]] })
  })
})

describe('where a wall that is begun goes', () => {
  it('square to what it begins at, as far as the wall it meets', () => {
    const snap = aimed([3, 0], [3.2, 4.8], [...WALLS, wall([0, 5], [8, 5])], REACH_M, false)
    expect(snap).toMatchObject({ to: 'wall', at: [3, 5] })
  })

  it('square to a slanted one', () => {
    const { at } = aimed([14, 2], [12, 4.3], WALLS, REACH_M, false)
    expect(at[0] - 14 + (at[1] - 2)).toBeCloseTo(0, 2)
  })

  it('anywhere where that is asked', () => {
    expect(aimed([3, 0], [4.2, 3.1], WALLS, REACH_M, true).at).toEqual([4.2, 3.1])
  })
})
