import { ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { DEVICE_KEYS } from '../src/api/design'
import { clashes, combination, shortcuts, type Shortcut } from '../src/shell/keys'
import { toolsOf } from '../src/sheet/tools'

const nothing = () => undefined
const STAGES = ['brief', 'plan', 'signal', 'cable', 'power', 'settings', 'order', 'install', 'handover']

function known(): Shortcut[] {
  const devices = Object.entries(DEVICE_KEYS).map(([name, key]) => ({ tool: name, name, key, hint: '' }))
  return shortcuts({
    palette: ref('closed'), stages: STAGES.map((id) => ({ id, name: id })), tools: () => [...toolsOf(null), ...devices],
    catalogue: () => null, goTo: nothing, take: nothing, undo: nothing, redo: nothing, letGo: nothing,
  })
}

describe('keys', () => {
  it('do one thing each, with those of every tool and kind of device', () => {
    expect(clashes(known())).toEqual([])
    expect(known().length).toBeGreaterThan(25)
  })

  it('that do two things in one place are named', () => {
    const [first] = known()
    const twice: Shortcut = { keys: ['w'], said: 'W', what: 'Wave', where: 'anywhere' }
    expect(clashes([...known(), twice])).toEqual(['w: Wall tool, on Plan; Wave'])
    expect(clashes([first!, { ...first!, what: 'Another' }])).toHaveLength(1)
  })

  it('are written in one order', () => {
    const event = { key: 'Z', ctrlKey: false, metaKey: true, shiftKey: true }
    expect(combination(event)).toBe('ctrl+shift+z')
    expect(combination({ ...event, key: '?', metaKey: false })).toBe('?')
    expect(combination({ ...event, key: 'K', shiftKey: false })).toBe('ctrl+k')
  })
})
