import { inject, provide, shallowRef, watch, type InjectionKey, type Ref, type ShallowRef } from 'vue'
import type { MeshLink, Point, Residual, View } from '@/api/types'
import type { BestSoFar, Moved } from '@/answers/useSites'
import type { useWalk } from '@/answers/useWalk'

/** What a failure that is looked at takes away, and the rooms that fall with it. */
export interface Fall {
  name: string
  gone: string[]
  rooms: Map<string, string>
}

/** What the bands under the sheet and the layers on it look at together. */
export interface Looking {
  floor: Ref<string>
  /** The relief that is drawn. */
  view: Readonly<Ref<Omit<View, 'floor'>>>
  /** What a search for places proposes, and its best while it runs. */
  proposed: ShallowRef<Moved[] | null>
  best: ShallowRef<BestSoFar | null>
  /** Back-haul over the air. */
  mesh: ShallowRef<MeshLink[] | null>
  /** What was measured beside the plan. */
  measured: ShallowRef<{ rows: Residual[]; fitted: boolean } | null>
  /** Where the air was scanned, on this storey. */
  scanned: ShallowRef<Point | null>
  failure: ShallowRef<Fall | null>
  walk: ReturnType<typeof useWalk>
}

const KEY: InjectionKey<Looking> = Symbol('looking')

export function provideLooking(floor: Ref<string>, view: Looking['view'], walk: Looking['walk']): Looking {
  const looking: Looking = {
    floor, view, walk,
    proposed: shallowRef(null), best: shallowRef(null), mesh: shallowRef(null), measured: shallowRef(null),
    scanned: shallowRef(null), failure: shallowRef(null),
  }
  watch(floor, () => (looking.scanned.value = null))
  provide(KEY, looking)
  return looking
}

export function useLooking(): Looking {
  const looking = inject(KEY)
  if (!looking) throw new Error('nothing is looked at here')
  return looking
}
