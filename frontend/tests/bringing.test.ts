import { describe, expect, it } from 'vitest'
import { doneTogether, drifted, openFirst, standingOn } from '@/document/bringing'

type State = 'done' | 'ready' | 'waits' | 'blocked'
const steps = (...states: State[]) => states.map((state, k) => ({ number: k + 1, state }))
const item = (id: string, state: State, does: '' | 'tick' | 'adopt' | 'match' | 'push' = '') => ({ id, state, does })

describe('the rung that one stands on', () => {
  it('is the first that can be worked on, or that stands still', () => {
    expect(standingOn(steps('done', 'waits', 'ready', 'blocked'))).toBe(3)
    expect(standingOn(steps('done', 'blocked', 'ready'))).toBe(2)
  })

  it('is the first that waits where nothing can be done, and none at the top', () => {
    expect(standingOn(steps('done', 'waits', 'waits'))).toBe(2)
    expect(standingOn(steps('done', 'done'))).toBeNull()
    expect(standingOn([])).toBeNull()
  })
})

describe('the things of a step', () => {
  it('are open first, in their own order', () => {
    const found = openFirst([item('a', 'done'), item('b', 'waits'), item('c', 'done'), item('d', 'ready', 'adopt')])
    expect(found.map((i) => i.id)).toEqual(['b', 'd', 'a', 'c'])
  })

  it('that are ticked by hand keep their place', () => {
    const found = openFirst([item('line', 'done', 'tick'), item('walk', 'ready', 'tick')])
    expect(found.map((i) => i.id)).toEqual(['line', 'walk'])
  })

  it('are done together where they are ready and a press does them', () => {
    const rows = [item('a', 'ready', 'adopt'), item('b', 'blocked', 'adopt'), item('c', 'ready', 'tick'), item('d', 'ready', 'match'), item('e', 'ready')]
    expect(doneTogether(rows).map((i) => i.id)).toEqual(['a'])
  })
})

describe('drift', () => {
  it('is what is held otherwise, or is held no more; not what was never sent', () => {
    const never = { held: 'none', sent: false }
    const lost = { held: 'none', sent: true }
    const changed = { held: '5', sent: false }
    expect(drifted([never, lost, changed])).toEqual([lost, changed])
  })
})
