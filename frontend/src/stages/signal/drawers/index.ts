import type { Component } from 'vue'
import type { Point } from '@/api/types'
import type { Looking } from '../looking'

/** What lies under the sheet, one thing at a time. It registers itself in a file of its own. */
export interface Drawer {
  id: string
  order: number
  label: string
  /** Its name in full. */
  what: string
  band: Component
  /** What it lays over the marks while it is open; it is given viewport, devices and what is chosen. */
  layer?: Component
  /** What a press on the sheet does: true where it has taken it; without one, a press asks why it is so loud there and puts the drawer away. */
  press?: (at: Point, looking: Looking) => boolean
  /** Which gestures the sheet leaves to it. */
  deaf?: (looking: Looking) => '' | 'levels' | 'all'
  /** Called when it is opened by hand. */
  opened?: (looking: Looking) => void
}

const FOUND = import.meta.glob<{ default: Drawer }>('./*.drawer.ts', { eager: true })
export const DRAWERS: Drawer[] = Object.values(FOUND).map((file) => file.default).sort((a, b) => a.order - b.order)
