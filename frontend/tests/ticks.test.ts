import { describe, expect, it } from 'vitest'
import type { StepStand, Tick } from '@/api/types'
import { standing } from '@/answers/ticks'
import { withoutSent } from '@/answers/useUnsent'

const known: StepStand = { step: 'safe', state: 'open', reason: '', note: 'seen', minutes: null, licensed_by: '', photos: ['p1'], by: 'Jo', at: '2026-11-25T08:00:00+00:00', said: 1 }
const tick = (key: string, step: string, at: string, more: Partial<Tick> = {}): Tick => ({ key, step, state: 'done', by: 'Ann', at, reason: '', note: '', licensed_by: '', minutes: null, photo: null, ...more })

describe('what was said of steps', () => {
  it('counts what was said here before it is sent', () => {
    const found = standing([known], [tick('k1', 'safe', '2026-11-25T09:00:00Z', { photo: 'p2' }), tick('k2', 'papers', '2026-11-25T09:01:00Z')])
    expect(found.get('safe')).toMatchObject({ state: 'done', by: 'Ann', unsent: true, said: 2, photos: ['p1', 'p2'] })
    expect(found.get('papers')).toMatchObject({ state: 'done', unsent: true, said: 1 })
  })

  it('lets what somebody else said later stand', () => {
    const found = standing([{ ...known, state: 'blocked', at: '2026-11-25T10:00:00+00:00' }], [tick('k1', 'safe', '2026-11-25T09:00:00Z')])
    expect(found.get('safe')).toMatchObject({ state: 'blocked', unsent: false })
  })

  it('keeps what was said while others were on their way', () => {
    const first = [tick('k1', 'safe', '2026-11-25T09:00:00Z')]
    const all = [...first, tick('k2', 'safe', '2026-11-25T09:00:05Z', { state: 'open' })]
    expect(withoutSent(all, first).map((t) => t.key)).toEqual(['k2'])
  })
})
