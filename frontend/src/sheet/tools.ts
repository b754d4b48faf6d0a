import { ref } from 'vue'

export type Tool =
  | 'select' | 'wall' | 'room' | 'door' | 'window'
  | 'access_point' | 'camera' | 'outlet' | 'equipment_room' | 'riser' | 'duct'

export interface ToolInfo {
  tool: Tool
  name: string
  key: string
  hint: string
}

export const TOOLS: ToolInfo[] = [
  { tool: 'select', name: 'Select', key: 'v', hint: 'Press a mark or wall to select it; drag to move; drag the ground to pan.' },
  { tool: 'wall', name: 'Wall', key: 'w', hint: 'Press where the wall starts, press again where it ends. Escape ends the chain.' },
  { tool: 'room', name: 'Room', key: 'o', hint: 'Drag from corner to corner. Walls are drawn where there are none.' },
  { tool: 'door', name: 'Door', key: 'd', hint: 'Press on a wall.' },
  { tool: 'window', name: 'Window', key: 'n', hint: 'Press on a wall.' },
  { tool: 'access_point', name: 'Access point', key: 'a', hint: 'Press where it hangs.' },
  { tool: 'camera', name: 'Camera', key: 'c', hint: 'Press where it is mounted.' },
  { tool: 'outlet', name: 'Outlet', key: 'u', hint: 'Press where the outlet goes.' },
  { tool: 'equipment_room', name: 'Rack', key: 'e', hint: 'Press where the rack stands. Every run begins there.' },
  { tool: 'riser', name: 'Riser', key: 'i', hint: 'Press where cables can rise through the floors.' },
  { tool: 'duct', name: 'Duct', key: 't', hint: 'Press where it leaves, at each corner, and in the other building; Enter ends it elsewhere.' },
]

export const tool = ref<Tool>('select')
export const wallConstruction = ref('plasterboard')
