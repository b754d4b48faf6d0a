import type { BringItem, BringStep, ControllerView } from '@/api/types'

/** The rung that one stands on: the first that can be worked on or stands still, else the first that waits. */
export function standingOn(steps: readonly Pick<BringStep, 'number' | 'state'>[]): number | null {
  const first = (...states: BringStep['state'][]) => steps.find((s) => states.includes(s.state))?.number
  return first('blocked', 'ready') ?? first('waits') ?? null
}

type Listed = Pick<BringItem, 'id' | 'state' | 'does'>
const settled = (item: Listed) => Number(item.state === 'done' && item.does !== 'tick')

/** What is open comes first, each in its step's own order; what is ticked by hand keeps its place. */
export function openFirst<T extends Listed>(items: readonly T[]): T[] {
  return [...items].sort((a, b) => settled(a) - settled(b))
}

/** What a press does for all of them at once; what a hand or a label has to say is for each by itself. */
export function doneTogether<T extends Listed>(items: readonly T[]): T[] {
  return items.filter((i) => i.state === 'ready' && i.does && !['tick', 'match', 'speed'].includes(i.does))
}

type Held = Pick<ControllerView['differs'][number], 'held' | 'sent'>

/** What was as planned once, or was set by somebody; what was never sent is no drift. */
export function drifted<T extends Held>(rows: readonly T[]): T[] {
  return rows.filter((d) => d.held !== 'none' || d.sent)
}
