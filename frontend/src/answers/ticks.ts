import type { StepStand, Tick } from '@/api/types'

/** How a step stands here: what the server knows, with what is still to be sent laid over it. */
export interface Stand extends StepStand {
  unsent: boolean
}

/** What counts of each step: what the server knows, and over it what was said here and is on its way. */
export function standing(known: readonly StepStand[], unsent: readonly Tick[]): Map<string, Stand> {
  const found = new Map<string, Stand>(known.map((s) => [s.step, { ...s, unsent: false }]))
  for (const tick of unsent) {
    const before = found.get(tick.step)
    const photos = [...(before?.photos ?? []), ...(tick.photo ? [tick.photo] : [])]
    const said = (before?.said ?? 0) + 1
    if (before && tick.state === null) found.set(tick.step, { ...before, photos, said })
    else
      found.set(tick.step, {
        step: tick.step, state: tick.state ?? 'open', reason: tick.reason ?? '', note: tick.note ?? '', minutes: tick.minutes ?? null,
        licensed_by: tick.licensed_by ?? '', photos, by: tick.by, at: tick.at ?? '', said, clock_ahead_s: 0, unsent: true,
      })
  }
  return found
}
