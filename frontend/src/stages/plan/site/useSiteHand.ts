import { computed, ref, shallowRef } from 'vue'
import type { Point, SiteView } from '@/api/types'
import { nearestStorey, newBuilding, newRoom, put, rectangle } from '@/document/edits'
import { contains, distance, rounded } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import type { useMade } from '@/document/useMade'
import { innerConstruction, outerConstruction } from '@/sheet/tools/constructions'
import type { Viewport } from '@/sheet/useViewport'

export type SiteTool = 'select' | 'house' | 'duct' | 'service' | 'grove' | 'far'

const MOVED_PX = 4
const SAME_SPOT_PX = 12
const STEP_M = 0.1
const NUDGE_M = 0.25
const DEPTH_M = 0.6
const TREES_M = 8
const NARROWEST_M = 1
const ARROWS: Record<string, Point> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

interface Site {
  viewport: Viewport
  view: () => SiteView | null
  made: ReturnType<typeof useMade>
}

/** What the pointer and the keyboard do on the site: carry a building, draw what lies in the ground. */
export function useSiteHand({ viewport, view, made }: Site) {
  const store = useDesign()
  const tool = ref<SiteTool>('select')
  /** The building that is chosen. */
  const building = ref<string | null>(null)
  const carried = shallowRef<{ id: string; by: Point } | null>(null)
  const path = shallowRef<Point[]>([])
  const cursor = shallowRef<Point | null>(null)
  let held: { id: string | null; x: number; y: number; moved: boolean } | null = null

  function spot(event: PointerEvent | WheelEvent): Point {
    const box = (event.currentTarget as Element).closest('svg')!.getBoundingClientRect()
    return viewport.toWorld(event.clientX - box.left, event.clientY - box.top)
  }

  /** The building that is being drawn. */
  const drawn = computed(() => (tool.value === 'house' && path.value[0] && cursor.value ? { from: path.value[0], to: rounded(cursor.value, 0.05), shape: 'room' as const } : null))
  const told = computed(() => {
    const by = carried.value?.by
    if (!by) return ''
    const way = (m: number, plus: string, minus: string) => (m ? `${length(Math.abs(m))} ${m > 0 ? plus : minus}` : '')
    return [way(by[0], 'east', 'west'), way(by[1], 'north', 'south')].filter(Boolean).join(', ')
  })

  function take(next: SiteTool): void {
    tool.value = next
    path.value = []
    building.value = null
  }

  function grab(id: string, event: PointerEvent): void {
    if (event.button !== 0 || tool.value !== 'select') return
    event.stopPropagation()
    building.value = id
    store.selection = null
    begin(id, event)
  }

  function begin(id: string | null, event: PointerEvent): void {
    held = { id, x: event.clientX, y: event.clientY, moved: false }
    const svg = (event.currentTarget as Element).closest('svg')!
    svg.setPointerCapture(event.pointerId)
    if (!id) svg.focus({ preventScroll: true })
  }

  function down(event: PointerEvent): void {
    if (event.button === 1 || tool.value === 'select') return begin(null, event)
    if (event.button !== 0) return
    const at = rounded(spot(event), 0.05)
    if (tool.value === 'far') return far(at)
    const last = path.value.at(-1)
    if (last && distance(last, at) * viewport.scale.value < SAME_SPOT_PX) return finish()
    if (last && tool.value === 'house' && Math.min(Math.abs(at[0] - last[0]), Math.abs(at[1] - last[1])) < NARROWEST_M) return
    path.value = [...path.value, at]
    if (tool.value === 'house' && path.value.length > 1) return finish()
    const start = houseAt(path.value[0]!)
    const there = houseAt(at)
    if (tool.value === 'duct' && path.value.length > 1 && there && there !== start) finish()
  }

  function move(event: PointerEvent): void {
    cursor.value = tool.value === 'select' ? null : spot(event)
    if (!held) return
    const [dx, dy] = [event.clientX - held.x, event.clientY - held.y]
    if (!held.moved && Math.hypot(dx, dy) < MOVED_PX) return
    held.moved = true
    if (held.id) {
      carried.value = { id: held.id, by: rounded([dx / viewport.scale.value, -dy / viewport.scale.value], STEP_M) }
    } else {
      viewport.pan(dx, dy)
      Object.assign(held, { x: event.clientX, y: event.clientY })
    }
  }

  function up(): void {
    const [was, to] = [held, carried.value]
    held = null
    if (was && !was.moved && !was.id && tool.value === 'select') building.value = null
    if (!to || (!to.by[0] && !to.by[1])) carried.value = null
    else void carry(to.id, to.by)
  }

  async function carry(id: string, by: Point): Promise<void> {
    await made.make(`Move ${nameOf(id)}`, { do: 'carry', building: id, by })
    carried.value = null
  }

  /** Put a building so far from another. */
  function apart(id: string, other: string, gap_m: number): void {
    void made.make(`${nameOf(id)} ${length(gap_m, 2)} from ${nameOf(other)}`, { do: 'apart', building: id, other, gap_m })
  }

  const nameOf = (id: string) => store.find('building', id)?.name ?? 'the building'
  const houseAt = (at: Point) => view()?.buildings.find((b) => b.outline.some((ring) => contains(ring as Point[], at)))?.building

  function finish(): void {
    const drawn = path.value
    path.value = []
    if (drawn.length < 2) return
    if (tool.value === 'house') house(drawn[0]!, drawn[1]!)
    else if (tool.value === 'duct') duct(drawn)
    else if (tool.value === 'service') service(drawn)
    else if (tool.value === 'grove' && drawn.length > 2) grove(drawn)
    tool.value = 'select'
  }

  /** Another building as one room between two corners; what is in it is drawn on its own plan. */
  function house(a: Point, b: Point): void {
    const corners = rectangle(a, b)
    const { name, floor, changes } = newBuilding(store)
    store.commit(`Draw ${name}`, [...changes, ...newRoom(store, floor.id, corners, innerConstruction.value, outerConstruction.value)])
    building.value = floor.building
  }

  /** A place on the land that is to be reached. */
  function far(at: Point): void {
    const id = store.nextId('far_point', 'far')
    const name = `Place ${id.split('-').at(-1)}`
    const row = {
      id, name, what: 'outbuilding' as const, at, ground_m: 0, mast_m: 3, room: null, room_mast_m: 4, clients: 0, cameras: 0, doors: 0, sensors: 0,
      mbps: null, delay_ms: null, years: 10, power: 'none' as const, land: 'lawn' as const, services_known: false, injector: false, panel: null, profile: [], trees: [], way: '', cell_dbm: null, cell_db: null,
    }
    store.commit(`Mark ${name}`, [put('far_point', row)])
    store.selection = { kind: 'far_point', id }
    tool.value = 'select'
  }

  /** Trees, as they stand round by the corners that were pressed. */
  function grove(drawn: Point[]): void {
    const id = store.nextId('grove', 'grove')
    const name = `Trees ${id.split('-').at(-1)}`
    store.commit(`Draw ${name}`, [put('grove', { id, name, outline: drawn, height_m: TREES_M, clear_m: 0, grows_m: null })])
    store.selection = { kind: 'grove', id }
  }

  function service(drawn: Point[]): void {
    const id = store.nextId('buried_service', 'buried')
    const name = `Service ${id.split('-').at(-1)}`
    store.commit(`Draw ${name}`, [put('buried_service', { id, name, carries: 'unknown', path: drawn, depth_m: null, found: false })])
    store.selection = { kind: 'buried_service', id }
  }

  function duct(drawn: Point[]): void {
    const first = houseAt(drawn[0]!) ?? nearest(drawn[0]!)
    const from = view()?.buildings.find((b) => b.building === first)?.floor
    const here = from ? store.find('floor', from) : undefined
    if (!here) return
    const second = houseAt(drawn.at(-1)!)
    const to = second ? nearestStorey(store.all('floor').filter((f) => f.building === second), here) : undefined
    const id = store.nextId('duct', 'duct')
    const name = `Duct ${id.split('-').at(-1)}`
    const row = { id, name, from_floor: here.id, to_floor: to?.id ?? here.id, path: drawn, depth_m: DEPTH_M, dug: 'loam' as const }
    store.commit(`Draw ${name}`, [put('duct', row)])
    store.selection = { kind: 'duct', id }
  }

  /** The building whose outline has the nearest corner. */
  function nearest(at: Point): string | undefined {
    const rows = (view()?.buildings ?? []).map((b) => ({ id: b.building, off: Math.min(...b.outline.flat().map((p) => distance(p as Point, at))) }))
    return rows.sort((a, b) => a.off - b.off)[0]?.id
  }

  function key(event: KeyboardEvent): void {
    if (event.key === 'Enter' && path.value.length) finish()
    else if (event.key === 'Escape') cancel()
    else if (event.key === 'Backspace' && path.value.length) path.value = path.value.slice(0, -1)
    else if (building.value && ARROWS[event.key]) {
      const step = event.shiftKey ? 4 * NUDGE_M : NUDGE_M
      const [x, y] = ARROWS[event.key]!
      void carry(building.value, [x * step, y * step])
    } else return
    event.preventDefault()
  }

  function wheel(event: WheelEvent): void {
    const box = (event.currentTarget as Element).getBoundingClientRect()
    viewport.zoomAt(event.clientX - box.left, event.clientY - box.top, Math.exp(-event.deltaY / 500))
  }

  function cancel(): void {
    held = null
    carried.value = null
    path.value = []
    if (tool.value === 'select') building.value = null
    else tool.value = 'select'
  }

  return { tool, building, carried, path, cursor, drawn, told, take, grab, down, move, up, cancel, finish, key, wheel, apart }
}
