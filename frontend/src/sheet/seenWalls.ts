import { computed, shallowRef } from 'vue'
import type { Change, JobKinds } from '@/api/types'
import { put } from '@/document/edits'
import type { useDesign } from '@/document/store'
import { constructionsOf } from './pens'
import { underlayOf } from './underlays'
import { innerConstruction, outerConstruction } from './tools/constructions'

export type SeenWall = JobKinds['walls']['result']['walls'][number]

/** Walls that were seen on the client's plan: none of them is in the plan until somebody takes it. */
const seen = shallowRef<{ project: string; floor: string; walls: SeenWall[] } | null>(null)

export function showSeen(project: string, floor: string, walls: SeenWall[]): void {
  seen.value = walls.length ? { project, floor, walls } : null
}

const USUAL: Record<SeenWall['openings'][number]['kind'], string> = { door: 'door-hollow', window: 'glass-clear', gap: '' }

export function useSeenWalls(store: ReturnType<typeof useDesign>, floor: () => string) {
  const walls = computed(() => (seen.value?.project === store.id && seen.value.floor === floor() && underlayOf(store, floor()) ? seen.value.walls : []))
  const sure = computed(() => walls.value.filter((w) => !w.why))

  function leave(rest: SeenWall[]): void {
    if (seen.value) showSeen(seen.value.project, seen.value.floor, rest)
  }

  /** Draw them: one edit, after which they are walls like any other. */
  function take(chosen: SeenWall[]): void {
    const numbers = { wall: numberOf(store.nextId('wall', 'wall')), opening: numberOf(store.nextId('opening', 'opening')) }
    const gap = constructionsOf(store.catalogue, ['gap'])[0]?.id ?? USUAL.door
    const changes: Change[] = chosen.flatMap((w) => {
      const id = `wall-${numbers.wall++}`
      const wall = put('wall', { id, floor: floor(), a: w.a, b: w.b, construction: w.outer ? outerConstruction.value : innerConstruction.value, rated: false })
      const openings = w.openings.map((o) => {
        return put('opening', { id: `opening-${numbers.opening++}`, wall: id, kind: o.kind, offset_m: o.offset_m, width_m: o.width_m, construction: USUAL[o.kind] || gap })
      })
      return [wall, ...openings]
    })
    store.commit(chosen.length === 1 ? 'Take a wall from the plan' : `Take ${chosen.length} walls from the plan`, changes)
    leave(walls.value.filter((w) => !chosen.includes(w)))
  }

  return { walls, sure, take, wipe: (w: SeenWall) => leave(walls.value.filter((o) => o !== w)), wipeAll: () => leave([]) }
}

const numberOf = (id: string) => Number(id.split('-').at(-1))
