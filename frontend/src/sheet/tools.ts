import { ref } from 'vue'
import type { Catalogue } from '@/api/types'

/** One of the tools below, or a kind of device, which places one of it. */
export type Tool = 'select' | 'wall' | 'room' | 'door' | 'window' | 'equipment_room' | 'riser' | 'duct' | (string & {})

export interface ToolInfo {
  tool: Tool
  name: string
  key: string
  /** What it expects next, said in one line at the foot of the sheet. */
  hint: string
  mark?: string
}

const DRAWING: ToolInfo[] = [
  { tool: 'select', name: 'Select', key: 'v', hint: 'press a mark, a wall or a room; drag to move; drag the ground to pan' },
  { tool: 'wall', name: 'Wall', key: 'w', hint: 'press where the wall starts' },
  { tool: 'room', name: 'Room', key: 'o', hint: 'drag from corner to corner; walls are drawn where there are none' },
  { tool: 'door', name: 'Door', key: 'd', hint: 'press on a wall' },
  { tool: 'window', name: 'Window', key: 'n', hint: 'press on a wall' },
]
const WAYS: ToolInfo[] = [
  { tool: 'equipment_room', name: 'Rack', key: 'e', hint: 'press where a rack stands; each device goes to the one that is best for it', mark: 'hut' },
  { tool: 'riser', name: 'Riser', key: 'i', hint: 'press where cables can rise through the floors', mark: 'well' },
  { tool: 'duct', name: 'Duct', key: 't', hint: 'press where it leaves, at each corner, and in the other building; Enter ends it elsewhere' },
]

/** All tools in their order: what is drawn, each kind of device, the ways of cable. */
export function toolsOf(catalogue: Catalogue | null): ToolInfo[] {
  const kinds = Object.values(catalogue?.roles ?? {}).map(
    ({ kind, name, key, hint, mark }): ToolInfo => ({ tool: kind, name, key, hint, mark }),
  )
  return [...DRAWING, ...kinds, ...WAYS]
}

export const tool = ref<Tool>('select')
export const wallConstruction = ref('plasterboard')
