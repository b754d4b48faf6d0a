import { useLocalStorage } from '@vueuse/core'

/** What of the plan's drawing can be left out, or kept from being pressed by mistake. */
export const LAYERS = [
  { id: 'walls', name: 'Walls' },
  { id: 'openings', name: 'Doors and windows' },
  { id: 'rooms', name: 'Rooms' },
  { id: 'gear', name: 'Devices' },
  { id: 'mains', name: 'Mains' },
  { id: 'ducts', name: 'Ducts' },
  { id: 'sight', name: 'What cameras see' },
  { id: 'underlay', name: 'Plan below' },
] as const
export type LayerId = (typeof LAYERS)[number]['id']
/** Layers that are drawn always, or have nothing to press. */
export const ALWAYS: readonly LayerId[] = ['rooms']
export const NOTHING_TO_PRESS: readonly LayerId[] = ['openings', 'sight', 'underlay']

export const hiddenLayers = useLocalStorage<LayerId[]>('heathrise-layers-hidden', [])
export const lockedLayers = useLocalStorage<LayerId[]>('heathrise-layers-locked', [])
