import type { StepStand, Tick } from '@/api/types'

/** How a step stands here: what the server knows, with what is still to be sent laid over it. */
export interface Stand extends StepStand {
  unsent: boolean
}

/** What counts of each step: what was said last, whether it was sent yet or not. */
export function standing(known: readonly StepStand[], unsent: readonly Tick[]): Map<string, Stand> {
  const found = new Map<string, Stand>(known.map((s) => [s.step, { ...s, unsent: false }]))
  for (const tick of unsent) {
    const before = found.get(tick.step)
    if (before && tick.at && Date.parse(before.at) > Date.parse(tick.at)) continue
    found.set(tick.step, {
      step: tick.step, state: tick.state, reason: tick.reason ?? '', note: tick.note ?? '', minutes: tick.minutes ?? null,
      licensed_by: tick.licensed_by ?? '', photos: [...(before?.photos ?? []), ...(tick.photo ? [tick.photo] : [])],
      by: tick.by, at: tick.at ?? '', said: (before?.said ?? 0) + 1, unsent: true,
    })
  }
  return found
}
