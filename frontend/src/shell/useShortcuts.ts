import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import type { Catalogue } from '@/api/types'
import { useDesign } from '@/document/store'
import { STAGES, type Stage } from '@/stages/registry'
import { tool, toolsOf } from '@/sheet/tools'

const KEYS: [keys: string, what: string][] = [
  ['Ctrl K', 'Command palette'],
  ['?', 'This list'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['Arrows', 'Move what is selected by 0.1 m, else the sheet'],
  ['Shift Arrows', 'Move by 1 m'],
  ['Alt Arrows', 'Move by 1 cm'],
  ['R', 'Turn what is selected by 15°'],
  ['Delete', 'Remove what is selected'],
  ['Escape', 'Let go, back to Select'],
]

/** Every shortcut, with those of the tools. */
export function shortcuts(catalogue: Catalogue | null): [keys: string, what: string][] {
  const stages: [string, string] = [`1 to ${STAGES.length}`, STAGES.map((s) => s.name).join(', ')]
  return [...KEYS, stages, ...toolsOf(catalogue).filter((t) => t.key).map((t): [string, string] => [t.key.toUpperCase(), `${t.name} tool, on Plan`])]
}

function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null
  return !!element?.closest('input, textarea, select, [role=combobox], [contenteditable]')
}

/** The sheet has an Escape of its own. */
function onSheet(target: EventTarget | null): boolean {
  return !!(target as Element | null)?.closest?.('svg.sheet')
}

/** Shortcuts that work wherever the focus is, but in fields. */
export function useShortcuts(hooks: {
  palette: Ref<'closed' | 'commands' | 'keys'>
  goTo: (stage: Stage) => void
}): void {
  const store = useDesign()
  useEventListener('keydown', (event: KeyboardEvent) => {
    const control = event.ctrlKey || event.metaKey
    const key = event.key.toLowerCase()
    if (control && key === 'k') {
      event.preventDefault()
      hooks.palette.value = 'commands'
    } else if (control && key === 'z' && !isTyping(event.target)) {
      event.preventDefault()
      if (event.shiftKey) store.redo()
      else store.undo()
    } else if (control || event.altKey || event.defaultPrevented || isTyping(event.target)) return
    else if (event.key === 'Escape' && !onSheet(event.target) && !document.querySelector('[role=dialog]')) store.selection = null
    else if (event.key === '?') hooks.palette.value = 'keys'
    else if (/^[1-9]$/.test(key) && STAGES[Number(key) - 1]) hooks.goTo(STAGES[Number(key) - 1]!.id)
    else if (location.pathname.endsWith('/plan')) {
      const wanted = toolsOf(store.catalogue).find((t) => t.key === key)
      if (wanted) tool.value = wanted.tool
    }
  })
}
