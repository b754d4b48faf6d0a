import type { Step } from '@/api/types'

/** The phases of the work, as the list says them. */
export const PHASES: Record<Step['phase'], string> = {
  safe: 'Safe', dig: 'Dig', rack: 'Rack', holes: 'Holes', pull: 'Pull', ends: 'Far ends', mount: 'Mount', panel: 'Panel', test: 'Test',
  protect: 'Protect', power: 'Power', adopt: 'Adopt', settings: 'Settings', finish: 'Finish',
}
