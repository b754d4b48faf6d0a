import type { Ref } from 'vue'
import type { Catalogue } from '@/api/types'
import type { ToolInfo } from '@/sheet/tools/hand'
import type { Stage } from '@/stages/registry'

/** One thing that a key does. Handler, list and palette read the same. */
export interface Shortcut {
  /** As `combination` writes them: `ctrl+shift+z`, `?`, `5`, `a`. */
  keys: string[]
  /** As the list says them. */
  said: string
  what: string
  /** Where it counts; the sheet listens to its own. */
  where: 'anywhere' | 'plan' | 'sheet'
  when?: (event: KeyboardEvent) => boolean
  run?: () => void
  /** What the palette calls it. */
  command?: string
}

/** What keys can do. */
export interface Doing {
  palette: Ref<'closed' | 'commands' | 'keys'>
  stages: readonly { id: Stage; name: string }[]
  tools: (catalogue: Catalogue | null) => ToolInfo[]
  catalogue: () => Catalogue | null
  goTo: (stage: Stage) => void
  take: (tool: string) => void
  undo: () => void
  redo: () => void
  letGo: () => void
}

/** The keys that are pressed together, in one order: `ctrl+shift+z`. Shift is said with Ctrl alone, as it makes another character else. */
export function combination(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>): string {
  const control = event.ctrlKey || event.metaKey
  return `${control ? 'ctrl+' : ''}${control && event.shiftKey ? 'shift+' : ''}${event.key.toLowerCase()}`
}

const ARROWS = ['arrowleft', 'arrowright', 'arrowup', 'arrowdown']
/** What the sheet does with keys while it has the focus. */
const ON_SHEET: Shortcut[] = [
  { keys: ARROWS, said: 'Arrows', what: 'Move what is selected by 0.1 m, by 1 m with Shift, by 1 cm with Alt; else the sheet', where: 'sheet' },
  { keys: ['r'], said: 'R', what: 'Turn what is selected by 15°, back with Shift', where: 'sheet' },
  { keys: ['delete', 'backspace'], said: 'Delete', what: 'Remove what is selected', where: 'sheet' },
  { keys: ['enter'], said: 'Enter', what: 'End a line that is drawn', where: 'sheet' },
  { keys: ['ctrl+a'], said: 'Ctrl A', what: 'Choose everything on this storey', where: 'sheet' },
  { keys: ['ctrl+c'], said: 'Ctrl C', what: 'Copy what is chosen', where: 'sheet' },
  { keys: ['ctrl+v'], said: 'Ctrl V', what: 'Put what was copied where the pointer is, on the storey shown', where: 'sheet' },
]

/** The sheet has an Escape of its own. */
const elsewhere = (event: KeyboardEvent) => !(event.target as Element | null)?.closest?.('svg.sheet') && !document.querySelector('[role=dialog]')

export function shortcuts(doing: Doing): Shortcut[] {
  return [
    { keys: ['ctrl+k'], said: 'Ctrl K', what: 'Command palette', where: 'anywhere', run: () => (doing.palette.value = 'commands') },
    { keys: ['?'], said: '?', what: 'This list', where: 'anywhere', run: () => (doing.palette.value = 'keys'), command: 'List the shortcuts' },
    { keys: ['ctrl+z'], said: 'Ctrl Z', what: 'Undo', where: 'anywhere', run: doing.undo, command: 'Undo' },
    { keys: ['ctrl+shift+z'], said: 'Ctrl Shift Z', what: 'Redo', where: 'anywhere', run: doing.redo, command: 'Redo' },
    { keys: ['escape'], said: 'Escape', what: 'Let go, back to Select', where: 'anywhere', when: elsewhere, run: doing.letGo },
    ...ON_SHEET,
    ...doing.stages.slice(0, 10).map((s, k): Shortcut => ({ keys: [`${(k + 1) % 10}`], said: `${(k + 1) % 10}`, what: s.name, where: 'anywhere', run: () => doing.goTo(s.id), command: `Go to ${s.name}` })),
    ...doing.tools(doing.catalogue()).map((t): Shortcut => ({ keys: t.key ? [t.key] : [], said: t.key.toUpperCase(), what: `${t.name} tool, on Plan`, where: 'plan', run: () => doing.take(t.tool), command: `Tool: ${t.name}` })),
  ]
}

/** Keys that do two things in one place. */
export function clashes(known: Shortcut[]): string[] {
  const found: string[] = []
  for (const [k, one] of known.entries()) {
    for (const other of known.slice(k + 1)) {
      const together = one.where === other.where || one.where === 'anywhere' || other.where === 'anywhere' || [one.where, other.where].includes('sheet')
      if (together) found.push(...one.keys.filter((key) => other.keys.includes(key)).map((key) => `${key}: ${one.what}; ${other.what}`))
    }
  }
  return found
}
