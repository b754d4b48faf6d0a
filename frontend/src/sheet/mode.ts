/** What the sheet is looked at for. */
export type SheetMode = 'brief' | 'plan' | 'signal' | 'cable' | 'handover'

/** What is drawn and can be done on the sheet. */
export interface Abilities {
  /** Tools draw here: the client's plan lies below, and gear that goes is shown with what stays. */
  tools: boolean
  /** Walls, rooms and ducts can be taken hold of. */
  ground: boolean
  /** Complaints, the line and zones of the brief. */
  notes: boolean
  /** Rooms in the tone of their verdict over the relief; a press asks what is heard there. */
  air: boolean
  /** Where cables run. */
  runs: boolean
  /** Where mains lie. */
  mains: boolean
}

const BARE: Abilities = { tools: false, ground: false, notes: false, air: false, runs: false, mains: false }
export const ABILITIES: Record<SheetMode, Abilities> = {
  brief: { ...BARE, tools: true, notes: true },
  plan: { ...BARE, tools: true, ground: true, mains: true },
  signal: { ...BARE, air: true },
  cable: { ...BARE, runs: true, mains: true },
  handover: { ...BARE, runs: true },
}
