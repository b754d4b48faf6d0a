import type { Component } from 'vue'
import type { Kind, Progress } from '@/api/types'
import type { useDesign } from '@/document/store'

/** A stage of the job, as its own folder's index.ts gives it. Nothing else lists the stages. */
export interface StageInfo {
  id: string
  name: string
  /** Its place in the order of the work. */
  order: number
  /** The lines of its icon, on a field of 24 by 24. */
  icon: string
  component: Component
  begun: (store: ReturnType<typeof useDesign>) => boolean
  /** How far it is in words, where that is not a matter of findings. */
  says?: (progress: Progress) => { text: string; tone: 'bad' | 'near' | 'good' | 'idle' }
  /** The list beside the drawing that says the same. */
  list?: Component
  /** What of the design can be looked at here; all of it where nothing is said. */
  selects?: Kind[]
  /** Whether it takes the room of the reasons too: nothing is judged there. */
  wide?: boolean
  /** Whether the findings of every stage are shown here. */
  overview?: boolean
}

const FOUND = import.meta.glob<{ default: StageInfo }>('./*/index.ts', { eager: true })

export const STAGES: StageInfo[] = Object.values(FOUND)
  .map((file) => file.default)
  .sort((a, b) => a.order - b.order)

export type Stage = string

export const stageOf = (id: string): StageInfo => STAGES.find((s) => s.id === id) ?? STAGES[0]!
