import { ref } from 'vue'
import { ApiError } from '@/api/client'
import type { Followed, Gesture } from '@/api/types'
import { askGesture } from './following'
import { useDesign } from './store'

/**
 * What a hand does on the sheet, with all that goes along: it is worked out by the server at each step of a drag,
 * of steps the latest waits, and becomes one edit when the hand lets go.
 */
export function useMade() {
  const store = useDesign()
  /** Why the last step cannot be done. */
  const why = ref('')
  let last: Followed | null = null
  let waiting: Gesture | null = null
  let asking: Promise<void> | null = null
  let hand = 0

  /** Show what a gesture would do. */
  function hold(gesture: Gesture): void {
    waiting = gesture
    asking ??= step(hand).finally(() => (asking = null))
  }

  async function step(mine: number): Promise<void> {
    while (waiting && mine === hand) {
      const gesture = waiting
      waiting = null
      const made = await asked(gesture)
      if (!made || mine !== hand) continue
      last = made
      store.held = made.changes
      void store.preview(made.changes)
    }
  }

  async function asked(gesture: Gesture): Promise<Followed | null> {
    try {
      const made = await askGesture(store.id, store.pending.flatMap((b) => b.changes), gesture)
      why.value = ''
      return made
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      why.value = error.isOffline ? 'No connection: walls move together once the server answers' : error.words
      return null
    }
  }

  /** Make an edit of what is held. */
  async function drop(label: string): Promise<void> {
    await asking
    const made = last
    end(!!made)
    if (made) keep(label, made)
  }

  let underWay = ''
  /** Do it at once. A field says the same twice, as it changes and as it is left: it is done once. */
  async function make(label: string, gesture: Gesture): Promise<boolean> {
    const said = JSON.stringify(gesture)
    if (said === underWay) return false
    underWay = said
    const made = await asked(gesture)
    underWay = ''
    if (made) keep(label, made)
    return !!made
  }

  function keep(label: string, made: Followed): void {
    store.commit(label, made.changes, true)
    store.questions = made.questions
  }

  function end(kept: boolean): void {
    hand += 1
    waiting = last = null
    why.value = ''
    store.held = []
    store.endPreview(kept)
  }

  return { why, hold, drop, make, cancel: () => end(false), holding: () => !!asking || !!last }
}
