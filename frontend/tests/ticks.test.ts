import { describe, expect, it } from 'vitest'
import type { StepStand, Tick } from '@/api/types'
import { standing } from '@/answers/ticks'
import { snagsHere } from '@/answers/useSnags'

const known: StepStand = { step: 'safe', state: 'open', reason: '', note: 'seen', minutes: null, licensed_by: '', photos: ['p1'], by: 'Jo', at: '2026-11-25T08:00:00+00:00', said: 1, clock_ahead_s: 0 }
const tick = (key: string, step: string, at: string, more: Partial<Tick> = {}): Tick => ({ key, step, state: 'done', by: 'Ann', at, reason: '', note: '', licensed_by: '', minutes: null, photo: null, ...more })

describe('what was said of steps', () => {
  it('counts what was said here before it is sent, whatever the clock here shows', () => {
    const found = standing([known], [tick('k1', 'safe', '2020-11-25T09:00:00Z', { photo: 'p2' }), tick('k2', 'papers', '2026-11-25T09:01:00Z')])
    expect(found.get('safe')).toMatchObject({ state: 'done', by: 'Ann', unsent: true, said: 2, photos: ['p1', 'p2'] })
    expect(found.get('papers')).toMatchObject({ state: 'done', unsent: true, said: 1 })
  })

  it('leaves a step with who did it when only a photograph is added', () => {
    const found = standing([{ ...known, state: 'done' }], [tick('k1', 'safe', '2026-11-25T09:00:00Z', { state: null, photo: 'p2' })])
    expect(found.get('safe')).toMatchObject({ state: 'done', by: 'Jo', note: 'seen', photos: ['p1', 'p2'], unsent: false })
  })
})

it('a photograph alone leaves a snag as it stands', () => {
  const said = { key: 'k', snag: 's-1', state: 'closed' as const, what: 'Plate', kind: '', owner: '', due: null, element: null, floor: null, photo: null, by: 'Jo', at: '2026-11-25T09:00:00Z' }
  const found = snagsHere([], [said, { ...said, key: 'k2', state: null, what: '', photo: 'p1', by: 'Ann' }])
  expect(found).toMatchObject([{ snag: 's-1', state: 'closed', what: 'Plate', said_by: 'Jo', photos: ['p1'] }])
})
