import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { View, Walk, WalkPoint } from '@/api/types'
import { useDesign } from '@/document/store'
import { useAttempt } from './useAttempt'

/** How a call on a walk is marked. */
export const HELD = { holds: '✓', breaks: '✕', no_way: '?' } as const

/** A walk of the brief that is to be looked at next. */
export const walkToShow = ref('')

/** A path that is walked with a call, drawn (it stays on this device) or one of the brief's; what becomes of it follows every edit while it is ``shown``. */
export function useWalk(band: () => View['band'], shown: () => boolean) {
  const store = useDesign()
  const attempt = useAttempt()
  const drawn = useLocalStorage<WalkPoint[]>(`heathrise-walk-${store.id}`, [])
  /** The walk of the brief that is looked at, or none. */
  const habit = ref('')
  // While something is dragged walks are not judged: the way stays as it was.
  const habitual = computed(() => store.evaluation?.signal.habits?.find((h) => h.habit === habit.value))
  watch(() => store.find('habit', habit.value), (there) => there ?? (habit.value = ''))
  const points = computed(() => habitual.value?.points ?? drawn.value)
  const drawing = ref(false)
  const walk = shallowRef<Walk | null>(null)
  /** Seconds into the walk that are looked at. */
  const moment = ref(0)
  const here = computed(() => {
    const samples = walk.value?.samples ?? []
    return samples[Math.min(samples.length - 1, Math.round(moment.value / 0.5))] ?? null
  })

  async function load(): Promise<void> {
    const known = points.value.filter((p) => store.find('floor', p.floor))
    if (known.length < 2 || habitual.value?.verdict === 'no_way') {
      walk.value = null
      return
    }
    const params = { path: { project_id: store.id } }
    const found = await attempt(() => taken(api.POST('/api/projects/{project_id}/walk', { params, body: { points: habitual.value ? [] : known, habit: habit.value, band: band() } })))
    if (!found) return
    walk.value = found
    moment.value = Math.min(moment.value, found.seconds)
  }

  function add(point: WalkPoint): void {
    const last = drawn.value.at(-1)
    // From one storey to the next one climbs where one stands, then walks on.
    const climb = last && last.floor !== point.floor ? [{ floor: point.floor, at: last.at }] : []
    drawn.value = [...drawn.value, ...climb, point]
  }

  watch(() => [shown(), habit.value, points.value, band(), store.revision] as const, () => shown() && void load(), { immediate: true })
  return { drawn, habit, points, drawing, walk, moment, here, add }
}
