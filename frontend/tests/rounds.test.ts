import { describe, expect, it } from 'vitest'
import type { Debrief } from '@/api/types'
import { gridOf, lanesOf, lasting } from '@/document/rounds'

const told = (under: Debrief['under'], faults: Debrief['faults'] = []): Debrief => ({ used_s: 100, allowed_s: 200, par_s: 50, idle_s: 0, done: 1, of: 2, under, faults, missed: [] })

describe('a round of practice', () => {
  it('says seconds as a clock does', () => {
    expect([0, 59.4, 60, 754, 3599.6, 3600, 9089].map(lasting)).toEqual(['0:00', '0:59', '1:00', '12:34', '1:00:00', '1:00:00', '2:31:29'])
    expect(lasting(-3)).toBe('0:00')
  })

  it('has a lane for each device in the order in which each was first under way, faults beside', () => {
    const lanes = lanesOf(
      told(
        [
          { device: 'Hall', doing: 'update', begin_s: 30, end_s: 90 },
          { device: 'The controller', doing: 'itself', begin_s: 0, end_s: 60 },
          { device: 'Hall', doing: 'adopt', begin_s: 5, end_s: 25 },
        ],
        [
          { device: 'Hall', fault: 'is slow', came_s: null, mended: true, lesson: '' },
          { device: 'Hall', fault: 'is deaf', came_s: 42, mended: false, lesson: '' },
          { device: 'Foyer', fault: 'is held', came_s: null, mended: true, lesson: '' },
        ],
      ),
    )
    expect(lanes.map((l) => l.device)).toEqual(['The controller', 'Hall', 'Foyer'])
    expect(lanes[1]).toMatchObject({ came: [42], fault: 'is slow; is deaf', mended: false })
    expect(lanes[1]!.under.map((u) => u.doing)).toEqual(['adopt', 'update'])
    expect(lanes[2]!.under).toEqual([])
  })

  it('draws eight lines at the most over any time', () => {
    for (let s = 1; s < 400_000; s = Math.ceil(s * 1.3)) {
      const grid = gridOf(s)
      expect(grid[0]).toBe(0)
      expect(grid.length).toBeLessThanOrEqual(9)
      expect(grid.at(-1)!).toBeLessThanOrEqual(s)
    }
  })
})
