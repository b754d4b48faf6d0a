import { ref, shallowRef } from 'vue'
import type { Catalogue } from '@/api/types'
import { deviceTool } from './device'
import type { SheetTool, Tool } from './hand'

const FOUND = import.meta.glob<{ default: SheetTool | SheetTool[] }>('./*.tool.ts', { eager: true })
const OWN = Object.values(FOUND)
  .flatMap((file) => file.default)
  .sort((a, b) => a.order - b.order)
const DEVICES_FROM = 100 // the place of the kinds of device among the others

/** All tools in their order: what is drawn, each kind of device, the ways of cable. */
export function toolsOf(catalogue: Catalogue | null): SheetTool[] {
  const kinds = Object.values(catalogue?.roles ?? {}).map((role, k) => deviceTool(role, DEVICES_FROM + k))
  return [...OWN, ...kinds].sort((a, b) => a.order - b.order)
}

export const tool = ref<Tool>('select')
/** Whether something is begun on the sheet, and what takes a digit that is typed then. */
export const drawing = ref(false)
export const typeExact = shallowRef<((digit: string) => void) | null>(null)
