import { useEventListener } from '@vueuse/core'
import type { Shortcut } from './keys'
import { combination } from './keys'
import { drawing, typeExact } from '@/sheet/tools'

function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null
  return !!element?.closest('input, textarea, select, [role=combobox], [contenteditable]')
}

/** Shortcuts that work wherever the focus is, but in fields. */
export function useShortcuts(known: () => Shortcut[]): void {
  useEventListener('keydown', (event: KeyboardEvent) => {
    const pressed = combination(event)
    if (pressed !== 'ctrl+k' && (event.altKey || event.defaultPrevented || isTyping(event.target))) return
    if (drawing.value && /^[\d.]$/.test(pressed)) {
      // A digit belongs to what is begun, wherever the focus is: no stage is gone to.
      event.preventDefault()
      typeExact.value?.(pressed)
      return
    }
    const there = location.pathname.endsWith('/plan') ? ['anywhere', 'plan'] : ['anywhere']
    const found = known().find((s) => s.run && there.includes(s.where) && s.keys.includes(pressed))
    if (!found || (found.when && !found.when(event))) return
    if (event.ctrlKey || event.metaKey) event.preventDefault()
    found.run?.()
  })
}
