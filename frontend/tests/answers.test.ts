import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useAnswers } from '@/answers/useAnswers'
import { ApiError } from '@/api/client'
import type { Change, Evaluation, Line, View } from '@/api/types'

interface Asked {
  path: string
  body: { changes: Change[]; view: View | null; figures: boolean; base: string | null }
  say: (line: Partial<Line>) => void
  end: () => void
  fail: (error: Error) => void
}

const server = vi.hoisted(() => ({ asked: [] as Asked[], reliefs: [] as ((relief: unknown) => void)[] }))

vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  api: { GET: () => new Promise((done) => server.reliefs.push(done)) },
  taken: (call: Promise<unknown>) => call,
  sendForLines: (path: string, body: Asked['body'], say: Asked['say']) =>
    new Promise<void>((end, fail) => server.asked.push({ path, body, say, end, fail })),
}))

const view = { floor: 'ground' } as unknown as View
const step = (x: number): Change[] => [{ op: 'put', kind: 'device', element: { id: 'ap-1', at: [x, 0] } }] as unknown as Change[]
const relief = (name: string) => ({ relief: { floor: name } }) as unknown as Partial<Line>
const figures = (price: number) =>
  ({ answer: { revision: 1, mark: `m${price}`, base: null, evaluation: { totals: { price } } } }) as unknown as Partial<Line>
const priceOf = (evaluation: Evaluation | null) => (evaluation as unknown as { totals: { price: number } } | null)?.totals.price
const soon = () => vi.advanceTimersByTimeAsync(1)

/** What the server was asked for since this was last asked: x of the step, and whether for figures. */
let seen = 0
function asked(): [number, 'relief' | 'figures'][] {
  const rows = server.asked.slice(seen)
  seen = server.asked.length
  return rows.map(({ body }) => {
    const put = body.changes[0] as unknown as { element: { at: number[] } }
    return [put.element.at[0]!, body.figures ? 'figures' : 'relief']
  })
}

function begin(shown: View | null = view) {
  const failed = vi.fn()
  const answers = useAnswers({ id: () => 'p', revision: () => 1, unsaved: () => [], failed, reached: () => undefined })
  if (shown) answers.view.value = shown
  return answers
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.advanceTimersByTime(1000)
  server.asked.length = server.reliefs.length = seen = 0
})

describe('a drag', () => {
  it('shows the relief of each step while figures are still being worked out', async () => {
    const answers = begin()
    void answers.preview(step(1))
    expect(asked()).toEqual([[1, 'figures'], [1, 'relief']])
    server.asked[1]!.say(relief('one'))
    server.asked[1]!.end()
    expect(answers.relief.value?.floor).toBe('one')
    await soon()
    void answers.preview(step(2)) // the figures of the first step are not here yet
    expect(asked()).toEqual([[2, 'relief']])
    server.asked[2]!.say(relief('two'))
    expect(answers.relief.value?.floor).toBe('two')
    server.asked[0]!.say(figures(100))
    expect(priceOf(answers.dragged.value)).toBe(100)
  })

  it('leaves out the steps that were overtaken, never the last', async () => {
    const answers = begin()
    void answers.preview(step(1))
    for (const x of [2, 3, 4]) void answers.preview(step(x))
    asked()
    server.asked[1]!.end()
    await soon()
    expect(asked()).toEqual([[4, 'relief']])
  })

  it('has the figures of where the hand rests, once', async () => {
    const answers = begin()
    void answers.preview(step(1))
    server.asked[0]!.say(figures(100))
    server.asked[0]!.end()
    server.asked[1]!.end()
    await soon()
    void answers.preview(step(2)) // too soon after the last figures
    expect(asked().slice(2)).toEqual([[2, 'relief']])
    server.asked[2]!.end()
    await vi.advanceTimersByTimeAsync(100)
    expect(asked()).toEqual([[2, 'figures']])
    server.asked[3]!.end()
    await vi.advanceTimersByTimeAsync(1000)
    expect(asked()).toEqual([])
  })

  it('waits at rest for figures of an earlier step that are under way', async () => {
    const answers = begin()
    void answers.preview(step(1))
    server.asked[1]!.end()
    await soon()
    void answers.preview(step(2))
    server.asked[2]!.end()
    await vi.advanceTimersByTimeAsync(200)
    asked()
    server.asked[0]!.end()
    await vi.advanceTimersByTimeAsync(100)
    expect(asked()).toEqual([[2, 'figures']])
  })

  it('that is over is shown no more, whatever still comes in', async () => {
    const answers = begin()
    void answers.preview(step(1))
    answers.endPreview(true)
    server.asked[0]!.say(figures(100))
    server.asked[1]!.say(relief('late'))
    expect(answers.dragged.value).toBeNull()
    expect(answers.relief.value).toBeNull()
    server.asked.forEach((a) => a.end())
    await vi.advanceTimersByTimeAsync(1000)
    expect(server.asked).toHaveLength(2)
  })

  it('that is given up leaves the relief that stood, even while one is under way', async () => {
    const answers = begin()
    void answers.preview(step(1))
    server.asked[1]!.say(relief('dragged'))
    answers.endPreview(false)
    server.reliefs[0]!({ floor: 'as saved' })
    await soon()
    expect(answers.relief.value?.floor).toBe('as saved')
  })

  it('begun while an earlier one is still answered is followed as soon as that is through', async () => {
    const answers = begin()
    void answers.preview(step(1))
    answers.endPreview(true)
    void answers.preview(step(5))
    asked()
    server.asked.forEach((a) => a.end())
    await soon()
    expect(asked()).toContainEqual([5, 'relief'])
  })

  it('goes on after a step that the server would not have', async () => {
    const answers = begin()
    void answers.preview(step(1))
    server.asked.forEach((a) => a.fail(new ApiError(422, 'A wall lies there.')))
    await soon()
    void answers.preview(step(2))
    expect(asked().slice(2)).toContainEqual([2, 'relief'])
  })

  it('asks for nothing but figures where nothing is drawn', async () => {
    const answers = begin(null)
    void answers.preview(step(1))
    expect(asked()).toEqual([[1, 'figures']])
    expect(server.asked[0]!.body.view).toBeNull()
    void answers.preview(step(2)) // as soon as the first are here, however soon that is
    server.asked[0]!.say(figures(100))
    server.asked[0]!.end()
    await vi.advanceTimersByTimeAsync(0)
    expect(asked()).toEqual([[2, 'figures']])
    expect(priceOf(answers.dragged.value)).toBe(100)
  })
})
