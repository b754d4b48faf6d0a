import { computed, onScopeDispose, ref, shallowRef, watch, watchEffect } from 'vue'
import type { AnyElement, Change, Device, EquipmentRoom, Opening, Point, Riser, Wall } from '@/api/types'
import { put, removal } from '@/document/edits'
import { rounded } from '@/document/geometry'
import { aimed, snapTo, type Snap } from '@/document/snaps'
import { within } from '@/document/picks'
import { useDesign } from '@/document/store'
import { drawing, tool, toolsOf, typeExact } from './tools'
import type { Draft, Hand } from './tools/hand'
import { useCorners, type Cornered } from './useCorners'
import { useOpeningHand } from './useOpeningHand'
import { usePicksHand } from './usePicksHand'
import { useWallHand } from './useWallHand'
import type { Viewport } from './useViewport'

export type Movable = 'device' | 'riser' | 'equipment_room' | 'pain' | 'line_entry' | 'panel' | 'socket' | 'light' | 'way_point'
const MOVABLE: readonly string[] = ['device', 'riser', 'equipment_room', 'pain', 'line_entry', 'panel', 'socket', 'light', 'way_point'] satisfies Movable[]
const nameOf = (element: AnyElement) => ('name' in element ? element.name : 'the mark')

const SNAP_PX = 12
const MOVED_PX = 3
const NUDGE_SAVE_MS = 500

/** What the pointer and the keyboard do on the sheet. */
export function useGestures(viewport: Viewport, floor: () => string, editable: () => boolean, ground: () => boolean) {
  const store = useDesign()
  const draft = shallowRef<Draft | null>(null)
  const snap = shallowRef<Snap | null>(null)
  const cursor = ref<Point | null>(null)
  const reach = () => SNAP_PX / viewport.scale.value
  const walls = () => store.all('wall').filter((w) => w.floor === floor())
  const path = shallowRef<Point[]>([])
  const inHand = computed(() => toolsOf(store.catalogue).find((t) => t.tool === tool.value))
  /** An exact figure that is being typed for what is begun. */
  const exact = ref<string | null>(null)
  let freely = false
  let adding = false
  /** Where Shift was held down on the ground: dragged on from there, a frame is drawn. */
  let framing: Point | null = null
  const hand: Hand = {
    store, floor, walls, reach, draft, path,
    snap: (at, from) => (snap.value = snapTo(at, walls(), reach(), from)).at,
    aim: (from, at) => (snap.value = aimed(from, at, walls(), reach(), freely)).at,
    free: () => freely,
    adds: () => adding,
    place(kind, label, changes, id) {
      store.commit(label, changes)
      store.selection = { kind, id }
    },
    pointer: () => snap.value?.at ?? cursor.value,
    letGo: () => (tool.value = 'select'),
  }
  const corners = useCorners(walls, reach)
  const wallHand = useWallHand(walls, reach)
  const openingHand = useOpeningHand(walls, reach)
  const picksHand = usePicksHand(floor)
  /** Whether many things are chosen, which is done where the ground can be taken hold of. */
  const many = () => ground() && store.picks.length > 0
  let start: { x: number; y: number } | null = null
  let panning = false
  let grabbed: { kind: Movable; id: string; from: Point; moved: boolean } | null = null
  let nudgeTimer: ReturnType<typeof setTimeout> | undefined

  function local(event: PointerEvent | WheelEvent): Point {
    const box = (event.currentTarget as Element).closest('svg')!.getBoundingClientRect()
    return [event.clientX - box.left, event.clientY - box.top]
  }

  function moveChange(kind: Movable, id: string, at: Point): Change | null {
    const element = store.find(kind, id) as Device | Riser | EquipmentRoom | undefined
    return element ? put(kind, { ...element, at }) : null
  }

  function grab(kind: Movable, id: string, event: PointerEvent): void {
    if (event.button !== 0 || tool.value !== 'select') return
    event.stopPropagation()
    if (event.shiftKey && ground()) return store.togglePick(kind, id)
    if (many() && store.picks.some((p) => p.kind === kind && p.id === id)) return grabPicks(event)
    // The spot that a run is led by belongs to its device, which stays chosen.
    if (kind !== 'way_point') store.selection = { kind, id }
    const element = store.find(kind, id)
    if (!element) return
    grabbed = { kind, id, from: element.at as Point, moved: false }
    start = { x: event.clientX, y: event.clientY }
    capture(event)
  }

  function worldOf(event: PointerEvent): Point | null {
    const box = (event.target as Element).closest('svg.sheet')?.getBoundingClientRect()
    return box ? viewport.toWorld(event.clientX - box.left, event.clientY - box.top) : null
  }

  /** Take hold of all that is chosen. */
  function grabPicks(event: PointerEvent): void {
    if (event.button !== 0 || tool.value !== 'select') return
    const at = worldOf(event)
    if (!at) return
    capture(event)
    picksHand.grab(at)
    start = { x: event.clientX, y: event.clientY }
  }

  /** Take hold of a wall, or of one of its ends. */
  function grabWall(wall: Wall, end: 'a' | 'b' | undefined, event: PointerEvent): void {
    if (event.button !== 0 || tool.value !== 'select') return
    const at = worldOf(event)
    capture(event)
    if (at) wallHand.grab(wall, at, end)
    start = { x: event.clientX, y: event.clientY }
  }

  function grabOpening(opening: Opening, event: PointerEvent): void {
    if (event.button !== 0 || tool.value !== 'select') return
    capture(event)
    openingHand.grab(opening)
    start = { x: event.clientX, y: event.clientY }
  }

  function grabCorner(shape: Cornered, corner: number, fresh: boolean, event: PointerEvent): void {
    corners.grab(shape, corner, fresh)
    capture(event)
  }

  function capture(event: PointerEvent): void {
    focus(event)?.setPointerCapture(event.pointerId)
  }

  function focus(event: PointerEvent): SVGSVGElement | null {
    const svg = (event.target as Element).closest<SVGSVGElement>('svg.sheet')
    svg?.focus({ preventScroll: true })
    return svg
  }

  function down(event: PointerEvent): void {
    const [x, y] = local(event)
    const at = viewport.toWorld(x, y)
    // Not captured yet: a press that does not move is a click on what lies under it.
    focus(event)
    adding = event.shiftKey
    framing = adding && tool.value === 'select' && event.button === 0 && ground() ? at : null
    if (framing) {
      start = { x: event.clientX, y: event.clientY }
      return
    }
    if (event.button === 1 || tool.value === 'select' || !editable()) {
      panning = true
      start = { x: event.clientX, y: event.clientY }
      return
    }
    capture(event)
    freely = event.altKey
    if (event.button === 0) inHand.value?.press?.(hand, at)
  }

  function move(event: PointerEvent): void {
    const [x, y] = local(event)
    const at = viewport.toWorld(x, y)
    cursor.value = at
    if (framing && start) {
      if (Math.hypot(event.clientX - start.x, event.clientY - start.y) < MOVED_PX) return
      tool.value = 'frame'
      capture(event)
      inHand.value?.press?.(hand, framing)
      framing = start = null
    } else if (panning && start) {
      const svg = event.currentTarget as Element
      if (!svg.hasPointerCapture(event.pointerId)) {
        if (Math.hypot(event.clientX - start.x, event.clientY - start.y) < MOVED_PX) return
        svg.setPointerCapture(event.pointerId)
      }
      viewport.pan(event.clientX - start.x, event.clientY - start.y)
      start = { x: event.clientX, y: event.clientY }
    } else if (grabbed && start) {
      const far = Math.hypot(event.clientX - start.x, event.clientY - start.y)
      if (far < MOVED_PX && !grabbed.moved) return
      grabbed.moved = true
      const dx = (event.clientX - start.x) / viewport.scale.value
      const dy = -(event.clientY - start.y) / viewport.scale.value
      const spot = rounded([grabbed.from[0] + dx, grabbed.from[1] + dy], 0.05)
      store.ghost = { kind: grabbed.kind, id: grabbed.id, at: spot }
      const change = moveChange(grabbed.kind, grabbed.id, spot)
      if (change) void store.preview([change])
    } else if (corners.moving.value) corners.drag(at)
    else if (wallHand.held.value || openingHand.held.value || picksHand.from.value) {
      const far = start ? Math.hypot(event.clientX - start.x, event.clientY - start.y) : MOVED_PX
      if (far < MOVED_PX) return
      start = null
      wallHand.move(at, event.altKey)
      openingHand.move(at)
      picksHand.move(at)
    } else {
      freely = event.altKey
      inHand.value?.move?.(hand, at)
    }
  }

  function up(): void {
    panning = false
    start = framing = null
    if (grabbed) dropMark(grabbed)
    corners.drop()
    grabbed = null
    if (wallHand.held.value) void wallHand.drop()
    openingHand.drop()
    if (picksHand.from.value) void picksHand.drop()
    if (exact.value === null) inHand.value?.release?.(hand)
  }

  function dropMark(held: { kind: Movable; id: string; moved: boolean }): void {
    const at = store.ghost?.at
    const element = store.find(held.kind, held.id)
    const change = held.moved && at ? moveChange(held.kind, held.id, at) : null
    if (change && element) {
      store.endPreview(true)
      store.commit(`Move ${nameOf(element)}`, [change])
    } else if (held.moved) store.endPreview(false)
    store.ghost = null
  }

  function wheel(event: WheelEvent): void {
    const [x, y] = local(event)
    viewport.zoomAt(x, y, Math.exp(-event.deltaY * 0.0015))
  }

  function cancel(): void {
    if (store.ghost) store.endPreview(false)
    grabbed = null
    wallHand.cancel()
    openingHand.cancel()
    picksHand.cancel()
    inHand.value?.cancel?.(hand)
    corners.cancel()
    store.ghost = snap.value = draft.value = null
    if (tool.value === 'select') store.pick([])
    tool.value = 'select'
  }

  // A digit belongs to what is begun, whether its tool takes one or not.
  watch(tool, () => (snap.value = null))
  watchEffect(() => {
    drawing.value = !!draft.value || path.value.length > 0
    typeExact.value = inHand.value?.typed && drawing.value ? (digit) => (exact.value = digit) : null
  })
  onScopeDispose(() => {
    drawing.value = false
    typeExact.value = null
  })

  /** Arrow keys: a tenth of a metre, a whole one with Shift, a centimetre with Alt. */
  function key(event: KeyboardEvent): void {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key]
    const chosen = store.selection
    if (way) {
      event.preventDefault()
      const step = event.shiftKey ? 1 : event.altKey ? 0.01 : 0.1
      if (many()) picksHand.nudge(way[0]! * step, way[1]! * step)
      else if (chosen && editable() && MOVABLE.includes(chosen.kind)) {
        nudge(chosen.kind as Movable, chosen.id, way[0]! * step, way[1]! * step)
      } else if (chosen?.kind === 'wall' && editable()) {
        const wall = store.find('wall', chosen.id)
        if (wall) wallHand.nudge(wall, way[0]! * step, way[1]! * step)
      } else if (chosen?.kind === 'opening' && editable()) {
        const opening = store.find('opening', chosen.id)
        if (opening) openingHand.nudge(opening, way[0]! * step, way[1]! * step)
      } else viewport.pan(-way[0]! * 40, way[1]! * 40)
    } else if (event.key === 'Escape') cancel()
    else if (ground() && (event.ctrlKey || event.metaKey)) onClipboard(event)
    else if (event.key === 'Enter') inHand.value?.finish?.(hand)
    else if ((event.key === 'Delete' || event.key === 'Backspace') && (chosen || many()) && editable()) remove()
    else if (event.key === 'r' && (chosen?.kind === 'device' || chosen?.kind === 'panel')) turn(event.shiftKey ? -15 : 15)
  }

  function onClipboard(event: KeyboardEvent): void {
    const pressed = event.key.toLowerCase()
    if (pressed === 'c') picksHand.copy()
    else if (pressed === 'v') void picksHand.paste(cursor.value)
    else if (pressed === 'a') store.pick(within(store, floor()))
    else return
    event.preventDefault()
  }

  function nudge(kind: Movable, id: string, dx: number, dy: number): void {
    const element = store.find(kind, id)
    if (!element) return
    const from = store.ghost?.id === id ? store.ghost.at : (element.at as Point)
    const at = rounded([from[0] + dx, from[1] + dy])
    store.ghost = { kind, id, at }
    const change = moveChange(kind, id, at)!
    void store.preview([change])
    clearTimeout(nudgeTimer)
    nudgeTimer = setTimeout(() => {
      store.endPreview(true)
      store.commit(`Move ${nameOf(element)}`, [change])
      store.ghost = null
    }, NUDGE_SAVE_MS)
  }

  function turn(degrees: number): void {
    const { kind, id } = store.selection ?? {}
    if (!id || (kind !== 'device' && kind !== 'panel')) return
    const turned = store.find(kind, id)
    if (!turned) return
    const azimuth = (turned.azimuth_deg + degrees + 360) % 360
    store.commit(`Turn ${turned.name}`, [put(kind, { ...turned, azimuth_deg: azimuth })])
  }

  function remove(): void {
    if (many()) return picksHand.remove()
    const chosen = store.selection
    if (!chosen) return
    const changes = removal(store, chosen.kind, chosen.id)
    const element = store.find(chosen.kind, chosen.id)
    const label = element && 'name' in element ? element.name : chosen.kind
    store.commit(`Remove ${label}`, changes)
  }

  return { draft, snap, wallHand, openingHand, picksHand, grabPicks, cursor, path, hand, inHand, exact, corners, grab, grabWall, grabOpening, grabCorner, down, move, up, wheel, key, cancel, remove }
}
