import { describe, expect, it } from 'vitest'
import { rackOf, spread, type Stood } from '@/sheet/spread'

const at = (key: string, x: number, y: number, more: Partial<Stood> = {}): Stood => ({ key, x, y, rack: null, held: false, ...more })

describe('marks on one another', () => {
  it('stay where they are if none is near', () => {
    const drawn = spread([at('a', 0, 0), at('b', 40, 0)])
    expect(drawn.get('a')).toEqual({ x: 0, y: 0, from: null })
    expect(drawn.get('b')).toEqual({ x: 40, y: 0, from: null })
  })

  it('are drawn apart, each with the spot it stands on', () => {
    const marks = [...'abcdefgh'].map((k, i) => at(k, 100 + i, 100 + (i % 2)))
    const drawn = [...spread(marks).values()]
    for (const [i, a] of drawn.entries()) {
      for (const b of drawn.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(20)
    }
    expect(drawn.filter((d) => d.from).length).toBe(7)
  })

  it('leave what is held under the hand', () => {
    const drawn = spread([at('a', 0, 0), at('b', 3, 0, { held: true })])
    expect(drawn.get('b')).toEqual({ x: 3, y: 0, from: null })
    expect(drawn.get('a')!.from).toEqual([0, 0])
  })

  it('stand beside their rack when they are in it', () => {
    const rooms = [{ id: 'r', at: [0, 0] as [number, number], floor: 'g' }]
    expect(rackOf({ at: [0.6, 0.6], floor: 'g' }, rooms)).toBe('r')
    expect(rackOf({ at: [0.6, 0.9], floor: 'g' }, rooms)).toBeNull()
    expect(rackOf({ at: [0, 0], floor: 'h' }, rooms)).toBeNull()
    const drawn = spread([at('router', 5, 3, { rack: 'r' }), at('r', 0, 0, { rack: 'r' })])
    expect(drawn.get('router')).toEqual({ x: 21, y: 0, from: [5, 3] })
  })
})
