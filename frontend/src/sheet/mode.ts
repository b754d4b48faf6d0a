/** What the sheet is looked at for. */
export type SheetMode = 'brief' | 'plan' | 'signal' | 'cable' | 'handover'
