import type { Debrief } from '@/api/types'

/** Seconds as a clock says them. */
export function lasting(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds))
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60]
  const two = (n: number) => String(n).padStart(2, '0')
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}

type Under = Debrief['under'][number]
export interface Lane {
  device: string
  under: Under[]
  came: number[]
  fault: string
  mended: boolean
}

/** One lane for each device, the controller first, then as they came: what was under way, and where its fault came about. */
export function lanesOf(told: Debrief): Lane[] {
  const lanes = new Map<string, Lane>()
  const lane = (device: string) => {
    if (!lanes.has(device)) lanes.set(device, { device, under: [], came: [], fault: '', mended: true })
    return lanes.get(device)!
  }
  for (const row of [...told.under].sort((a, b) => a.begin_s - b.begin_s)) lane(row.device).under.push(row)
  for (const row of told.faults) {
    const one = lane(row.device)
    one.fault = one.fault ? `${one.fault}; ${row.fault}` : row.fault
    one.mended &&= row.mended
    if (row.came_s != null) one.came.push(row.came_s)
  }
  return [...lanes.values()]
}

/** Times at which a line is drawn: eight at the most, at whole minutes or parts of an hour. */
export function gridOf(longest_s: number): number[] {
  const step = [60, 120, 300, 600, 900, 1800, 3600, 7200, 14_400, 43_200].find((s) => longest_s / s <= 8) ?? 86_400
  return Array.from({ length: Math.floor(longest_s / step) + 1 }, (_, k) => k * step)
}
