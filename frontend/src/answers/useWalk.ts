import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { View, Walk, WalkPoint } from '@/api/types'
import { useDesign } from '@/document/store'
import { useBeside } from './useBeside'

/** How a call on a walk is marked. */
export const HELD = { holds: '✓', breaks: '✕', no_way: '?' } as const

/** A walk of the brief that is to be looked at next. */
export const walkToShow = ref('')

/** A path that is walked with a call, drawn (it stays on this device) or one of the brief's; what becomes of it follows every edit while it is ``shown``. */
export function useWalk(band: () => View['band'], shown: () => boolean) {
  const store = useDesign()
  const drawn = useLocalStorage<WalkPoint[]>(`heathrise-walk-${store.id}`, [])
  /** The walk of the brief that is looked at, or none. */
  const habit = ref('')
  // While something is dragged walks are not judged: the way stays as it was.
  const habitual = computed(() => store.evaluation?.signal.habits?.find((h) => h.habit === habit.value))
  watch(() => store.find('habit', habit.value), (there) => there ?? (habit.value = ''))
  const points = computed(() => habitual.value?.points ?? drawn.value)
  const drawing = ref(false)
  const known = computed(() => points.value.filter((p) => store.find('floor', p.floor)))
  const walkable = computed(() => known.value.length > 1 && habitual.value?.verdict !== 'no_way')
  const ask = (project_id: string) => {
    const body = { points: habitual.value ? [] : known.value, habit: habit.value, band: band() }
    return taken(api.POST('/api/projects/{project_id}/walk', { params: { path: { project_id } }, body }))
  }
  const { answer } = useBeside(ask, { wanted: () => shown() && walkable.value, about: () => [habit.value, band(), JSON.stringify(known.value)].join() })
  const walk = computed<Walk | null>(() => (walkable.value ? answer.value : null))
  /** Seconds into the walk that are looked at. */
  const moment = ref(0)
  const here = computed(() => {
    const samples = walk.value?.samples ?? []
    return samples[Math.min(samples.length - 1, Math.round(moment.value / 0.5))] ?? null
  })

  function add(point: WalkPoint): void {
    const last = drawn.value.at(-1)
    // From one storey to the next one climbs where one stands, then walks on.
    const climb = last && last.floor !== point.floor ? [{ floor: point.floor, at: last.at }] : []
    drawn.value = [...drawn.value, ...climb, point]
  }

  /** Look at one of the brief's walks from its beginning; the storey that it begins on. */
  function follow(id: string): string | undefined {
    habit.value = id
    drawing.value = false
    moment.value = 0
    return id ? points.value[0]?.floor : undefined
  }

  watch(walk, (now) => now && (moment.value = Math.min(moment.value, now.seconds)))
  return { drawn, habit, points, drawing, walk, moment, here, add, follow }
}
