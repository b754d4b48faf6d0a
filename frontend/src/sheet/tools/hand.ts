import type { ShallowRef } from 'vue'
import type { Change, Kind, Point, Wall } from '@/api/types'
import type { useDesign } from '@/document/store'

export interface Draft {
  from: Point
  to: Point
  shape: 'wall' | 'room'
  /** Where a line of several began. */
  start?: Point
  /** The walls of that line. */
  drawn?: string[]
}

/** What a tool works with: the floor that is drawn on, and what is begun on it. */
export interface Hand {
  store: ReturnType<typeof useDesign>
  floor: () => string
  walls: () => Wall[]
  /** How near in metres a press has to come to something to mean it. */
  reach: () => number
  /** Whether any angle is wanted, as long as Alt is held. */
  free: () => boolean
  draft: ShallowRef<Draft | null>
  /** Where a point is meant for: what it is snapped to is shown beside the pointer. */
  snap: (at: Point, from?: Point) => Point
  /** The same square to where a line begins, unless any angle is wanted. */
  aim: (from: Point, at: Point) => Point
  /** The corners of a line that is begun. */
  path: ShallowRef<Point[]>
  /** Make an edit and select what it placed. */
  place: (kind: Kind, label: string, changes: Change[], id: string) => void
  /** Whether what is chosen adds to what was, as long as Shift is held. */
  adds: () => boolean
  /** Where the pointer is, square to what is begun and snapped. */
  pointer: () => Point | null
  letGo: () => void
}

/** One of the tools below, or a kind of device, which places one of it. */
export type Tool = string

export interface ToolInfo {
  tool: Tool
  name: string
  key: string
  /** What it expects next, said in one line at the foot of the sheet. */
  hint: string
  /** Its drawing: one of the sheet's marks, or lines of its own. */
  mark?: string
  lines?: string
}

/** A tool of the sheet. Each has a file of its own, `*.tool.ts`, and needs no other list. */
export interface SheetTool extends ToolInfo {
  order: number
  /** The stage it belongs to, where that is not the plan. */
  stage?: string
  press?: (hand: Hand, at: Point) => void
  move?: (hand: Hand, at: Point) => void
  release?: (hand: Hand) => void
  /** Enter, and Escape. */
  finish?: (hand: Hand) => void
  cancel?: (hand: Hand) => void
  expects?: (hand: Hand) => string
  /** Take an exact figure that was typed while something is begun; false where it is not understood. */
  typed?: (hand: Hand, text: string) => boolean
  /** What may be typed, said beside the field. */
  typing?: string
}
