<script setup lang="ts">
import { useElementSize, useThrottleFn } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Device, LevelReading, Point } from '@/api/types'
import { useDesign } from '@/document/store'
import { boundsOf } from '@/document/geometry'
import { dbm } from '@/document/units'
import BriefLayer from './BriefLayer.vue'
import CornersLayer from './CornersLayer.vue'
import DifferenceLayer from './DifferenceLayer.vue'
import DraftLayer from './DraftLayer.vue'
import GapsLayer from './GapsLayer.vue'
import GroundLayer from './GroundLayer.vue'
import LevelProbe from './LevelProbe.vue'
import MainsLayer from './MainsLayer.vue'
import MarksLayer from './MarksLayer.vue'
import PicksLayer from './PicksLayer.vue'
import ReliefLayer from './ReliefLayer.vue'
import RunsLayer from './RunsLayer.vue'
import SightLayer from './SightLayer.vue'
import RoomQuestions from './RoomQuestions.vue'
import SeenLayer from './SeenLayer.vue'
import SheetFurniture from './SheetFurniture.vue'
import SnapLayer from './SnapLayer.vue'
import UnderlayLayer from './UnderlayLayer.vue'
import WallMeasure from './WallMeasure.vue'
import WallsLayer from './WallsLayer.vue'
import YardLayer from './YardLayer.vue'
import { tool } from './tools'
import ToolLine from './ToolLine.vue'
import type { Box } from './boxes'
import { useNames } from './useNames'
import { spreadOn } from './spreadOn'
import { hiddenLayers, lockedLayers, type LayerId } from './layers'
import { cornersOf } from './useCorners'
import { ABILITIES, type SheetMode } from './mode'
import { pictureCorners } from '@/document/underlay'
import { underlayOf } from './underlays'
import { useGestures } from './useGestures'
import { useViewport, type Viewport } from './useViewport'

/** The drawing of one storey. A stage lays its own layers over the marks through the slot, and says what else it wants. */
const props = defineProps<{
  floor: string
  mode: SheetMode
  today?: boolean
  /** Tones of rooms in place of their verdicts. */
  tones?: Map<string, string> | null
  /** What a difference is from, as the legend says it. */
  against?: string
  /** What leaves its place is named by the stage's own layer. */
  leaving?: Set<string>
  /** Levels are shown under the pointer, rooms are chosen by a press. */
  deaf?: '' | 'levels' | 'all'
}>()
defineSlots<{ default?(drawn: { viewport: Viewport; devices: Device[]; chosen: string | null }): unknown }>()
const emit = defineEmits<{ spot: [at: Point] }>()
const store = useDesign()
const frame = useTemplateRef<HTMLElement>('frame')
const viewport = useViewport()
const { width, height } = useElementSize(frame)
const gestures = useGestures(viewport, () => props.floor, () => true, () => can.value.ground)
const underlay = computed(() => {
  const found = can.value.tools ? underlayOf(store, props.floor) : undefined
  return found && !found.hidden ? found : undefined
})
const can = computed(() => ABILITIES[props.mode])
/** What is left out of the plan's drawing, and what no press reaches. */
const off = computed(() => (can.value.ground ? hiddenLayers.value : []))
const locked = computed(() => (can.value.ground ? lockedLayers.value : []))
const open = (layer: LayerId) => can.value.ground && tool.value === 'select' && !locked.value.includes(layer)

const snap = computed(() => gestures.wallHand.snap.value ?? (tool.value === 'select' ? null : gestures.snap.value))
const here = <T extends { floor: string }>(rows: T[]) => rows.filter((r) => r.floor === props.floor)
const spaces = computed(() => here(store.drawn('space')).map(gestures.corners.shown))
const walls = computed(() => here(store.drawn('wall')))
const openings = computed(() => {
  const ids = new Set(walls.value.map((w) => w.id))
  return store.drawn('opening').filter((o) => ids.has(o.wall))
})
const ducts = computed(() =>
  store.all('duct')
    .filter((d) => d.from_floor === props.floor || d.to_floor === props.floor)
    .map(gestures.corners.shown),
)
const level = computed(() => store.find('floor', props.floor))
const placed = <T extends { id: string; at: Point }>(rows: T[]): T[] => {
  const ghost = store.ghost
  return rows.map((r) => (ghost?.id === r.id ? { ...r, at: ghost.at } : r))
}
/** Beyond plan and brief only what takes part is shown: the gear that stays, or that of today. */
/** Whether nothing at all is drawn on this storey. */
const bare = computed(() => {
  const drawn = [spaces.value, walls.value, devices.value, ...(['zone', 'pain', 'equipment_room', 'line_entry', 'old_cable'] as const).map((kind) => here<{ floor: string }>(store.all(kind)))]
  return !underlay.value && drawn.every((rows) => !rows.length)
})
const devices = computed(() =>
  placed(here(store.drawn('device'))).filter((d) => can.value.tools || (props.today ? d.state !== 'new' : d.state === 'new' || d.state === 'keep')),
)
const rooms = computed(() => placed(here(store.drawn('equipment_room'))))
const risers = computed(() =>
  placed(
    store.all('riser').filter((r) => {
      const f = level.value
      return f && r.building === f.building && r.lowest_level <= f.level && f.level <= r.highest_level
    }),
  ),
)
const mains = computed(() => ({
  panels: placed(here(store.drawn('panel'))),
  sockets: placed(here(store.drawn('socket'))),
  lights: placed(here(store.all('light'))),
  routes: here(store.all('mains_route')).map(gestures.corners.shown),
}))
const verdicts = computed(
  () => props.tones ?? new Map(!can.value.air || props.today ? [] : (store.shown?.signal.rooms ?? []).map((r) => [r.space, r.verdict])),
)
/** What stands over the sheet at its foot, in pixels. */
const furniture = shallowRef<Box[]>([])
/** Where each mark is drawn: beside what it would lie on. */
const drawn = computed(() => spreadOn(store.catalogue, rooms.value, devices.value, risers.value, viewport, chosen.value))
const names = useNames({
  viewport, can: () => can.value, floor: () => props.floor, leaving: () => props.leaving, chosen: () => chosen.value,
  spaces: () => spaces.value, devices: () => (off.value.includes('gear') ? [] : devices.value), rooms: () => rooms.value, risers: () => risers.value,
  mains: () => mains.value, drawn: () => drawn.value, furniture: () => furniture.value,
})
/** The worst point of the room that is selected. */
const worst = computed(() => {
  const id = can.value.air && !props.today && store.selection?.kind === 'space' ? store.selection.id : ''
  const room = store.shown?.signal.rooms.find((r) => r.space === id)
  if (!room?.worst_at || room.floor !== props.floor) return null
  const [x, y] = viewport.toScreen(room.worst_at)
  const level = room.binds === 'second' ? room.worst_second_dbm : room.worst_first_dbm
  return { x, y, text: dbm(level) }
})
/** The room or duct whose corners can be moved. */
const shaped = computed(() => {
  if (!can.value.ground || tool.value !== 'select' || !store.selection) return null
  const { kind, id } = store.selection
  const rows = kind === 'space' ? spaces.value : kind === 'duct' ? ducts.value : kind === 'mains_route' ? mains.value.routes : []
  const found = rows.find((r) => r.id === id)
  return found ? cornersOf(found) : null
})
const chosen = computed(() => store.selection?.id ?? null)
const measuredWall = computed(() => can.value.ground && tool.value === 'select' && store.selection?.kind === 'wall' ? walls.value.find((w) => w.id === chosen.value) : undefined)
/** Spots that the run of the device that is chosen is led by, on this storey. */
const points = computed(() => {
  const device = store.selection?.kind === 'device' ? store.selection.id : null
  return placed(here(store.all('way_point').filter((p) => p.device === device)))
})
/** Cords of what is plugged into other devices of this storey. */
const cords = computed(() =>
  (store.shown?.power.plugged ?? []).flatMap((p) => {
    const [host, guest] = [store.find('device', p.host), store.find('device', p.device)]
    // What begins at an extender box has a run there, drawn as one.
    const run = store.shown?.cable.runs.some((r) => r.device === p.device)
    const both = host?.floor === props.floor && guest && p.port && !run
    return both ? [{ device: p.device, name: `${p.name} in ${p.host_name} port ${p.port}`, from: host.at, to: guest.at }] : []
  }),
)
const reliefHere = computed(() =>
  can.value.air && store.relief?.floor === props.floor && store.relief.tints.length + store.relief.serves.length
    ? store.relief
    : null,
)

/** Say whether a duct is drawn, which leads from one building to another: all of them are shown then. */
function layingDucts(): boolean {
  return tool.value === 'duct' && store.all('building').length > 1
}

/** Show the whole floor, what stands far out of doors left aside, or all there is of the site. */
function fit(all = layingDucts()): void {
  const drawn = [
    ...(all ? store.all('space') : spaces.value).flatMap((s) => s.outline),
    ...walls.value.flatMap((w) => [w.a, w.b]),
  ]
  if (can.value.notes) drawn.push(...here(store.all('zone')).flatMap((z) => z.outline))
  if (!drawn.length && underlay.value) drawn.push(...pictureCorners(underlay.value))
  const [west, south, east, north] = boundsOf(drawn.length ? drawn : devices.value.map((d) => d.at))
  const reach = Math.max(east - west, north - south) / 2
  const beside = (p: Point) => p[0] > west - reach && p[0] < east + reach && p[1] > south - reach && p[1] < north + reach
  const near = devices.value.map((d) => d.at).filter((p) => all || beside(p))
  if (drawn.length || near.length) viewport.fit(boundsOf([...drawn, ...near]), furniture.value)
  else viewport.fit([0, 0, 20, 14])
}

const REFIT_SHARE = 0.2
watch([width, height], ([w, h], [before, high]) => {
  viewport.width.value = w
  viewport.height.value = h
  // Also where a panel folds out beside or below the sheet, which would hide part of the drawing.
  const other = Math.abs(w - before) > REFIT_SHARE * before || Math.abs(h - high) > REFIT_SHARE * high
  if (w && (!before || (other && !gestures.draft.value))) void nextTick(() => fit())
})
watch(() => [props.floor, store.id], () => void nextTick(() => fit()))
// The legend is measured after the sheet is: what it would cover is then moved clear of it.
watch(furniture, (_, before) => !before.length && fit())
watch(tool, () => layingDucts() && fit())

const probe = ref<{ x: number; y: number; space: string | null; readings: LevelReading[] } | null>(null)

const readLevels = useThrottleFn(
  async (x: number, y: number, at: Point) => {
    if (store.ghost) return
    try {
      const query = { floor: props.floor, x: at[0], y: at[1] }
      const found = await taken(api.GET('/api/projects/{project_id}/levels', { params: { path: { project_id: store.id }, query } }))
      probe.value = { x, y, ...found }
    } catch {
      probe.value = null
    }
  },
  80,
  true,
)

function moved(event: PointerEvent): void {
  gestures.move(event)
  if (!can.value.air || props.deaf === 'all' || event.buttons || !gestures.cursor.value) {
    probe.value = null
    return
  }
  const box = frame.value!.getBoundingClientRect()
  void readLevels(event.clientX - box.left, event.clientY - box.top, gestures.cursor.value)
}

function left(): void {
  probe.value = null
  gestures.cursor.value = null
}

const MOVED_PX = 4
let pressed: Point = [0, 0]
/** A press on the sheet that is no drag asks why it is so loud there. */
function press(event: PointerEvent): void {
  pressed = [event.clientX, event.clientY]
  gestures.down(event)
}
function release(event: PointerEvent): void {
  const still = Math.hypot(event.clientX - pressed[0], event.clientY - pressed[1]) < MOVED_PX
  const onMark = (event.target as Element).closest('[data-mark]')
  if (can.value.air && !props.today && still && !onMark && event.button === 0) {
    const box = frame.value!.getBoundingClientRect()
    probe.value = null
    emit('spot', viewport.toWorld(event.clientX - box.left, event.clientY - box.top))
  }
  gestures.up()
}

function chooseSpace(id: string, adds: boolean): void {
  if (tool.value === 'select' && props.deaf !== 'all') choose('space', id, adds && can.value.ground)
}
function choose(kind: 'wall' | 'opening' | 'space', id: string, adds: boolean): void {
  if (adds) store.togglePick(kind, id)
  else store.selection = { kind, id }
}

defineExpose({ fit, remove: gestures.remove })
</script>

<template>
  <div class="view">
  <div ref="frame" class="frame" :class="[`tool-${tool}`]">
    <svg
      class="sheet" tabindex="0" role="application" :aria-label="`Sheet of ${level?.name ?? 'the floor'}. The list beside it says the same.`"
      @pointerdown="press" @pointermove="moved" @pointerup="release" @pointercancel="gestures.cancel"
      @pointerleave="left" @wheel.prevent="gestures.wheel" @keydown="gestures.key"
    >
      <DraftLayer part="grid" :viewport="viewport" :draft="null" :cursor="null" />
      <UnderlayLayer v-if="underlay && !off.includes('underlay')" :picture="underlay" :viewport="viewport" />
      <ReliefLayer v-if="reliefHere" :relief="reliefHere" :spaces="spaces" :walls="walls" :taken="names.taken" :viewport="viewport" />
      <GroundLayer
        :class="{ shut: locked.includes('rooms') }"
        :spaces="spaces" :viewport="viewport" :chosen="chosen" :verdicts="verdicts" :names="names.rooms" :plain="!!reliefHere || !!underlay"
        @choose="chooseSpace"
      />
      <YardLayer
        :floor="floor" :ducts="can.ground && !off.includes('ducts') ? ducts : []" :viewport="viewport" :chosen="chosen"
        :active="open('ducts')"
        @choose="(id) => (store.selection = { kind: 'duct', id })"
      />
      <WallsLayer
        v-if="!off.includes('walls')" :walls="walls" :openings="off.includes('openings') ? [] : openings" :viewport="viewport" :chosen="chosen"
        :active="open('walls')"
        @choose="choose" @grab="gestures.grabWall" @slide="gestures.grabOpening"
      />
      <SightLayer v-if="can.mains && can.tools && !off.includes('sight')" :floor="floor" :devices="devices" :viewport="viewport" :chosen="chosen" :active="tool === 'select'" />
      <MainsLayer
        v-if="can.mains && !off.includes('mains')" v-bind="mains" :floor="floor" :names="names.marks" :viewport="viewport" :chosen="chosen" :active="open('mains')"
        @choose="(kind, id) => (store.selection = { kind, id })" @grab="gestures.grab"
      />
      <RunsLayer
        v-if="can.runs" :runs="store.shown?.cable.runs ?? []" :trunks="store.shown?.cable.trunks ?? []" :taken="names.taken" :uplinks="store.shown?.cable.uplinks ?? []" :room="store.selection?.kind === 'equipment_room' ? chosen : null" :ducts="store.all('duct')" :floor="floor"
        :chosen="store.selection?.kind === 'device' ? chosen : null" :viewport="viewport" :cords="cords" :points="points" @grab="gestures.grab"
        @choose="(id) => (store.selection = { kind: 'device', id })" @room="(id) => (store.selection = { kind: 'equipment_room', id })"
      />
      <MarksLayer
        :class="{ shut: locked.includes('gear') }" :devices="off.includes('gear') ? [] : devices" :rooms="rooms" :risers="risers" :chosen="chosen"
        :names="names.marks" :drawn="drawn" @grab="gestures.grab"
      />
      <slot :viewport="viewport" :devices="devices" :chosen="chosen" />
      <BriefLayer
        v-if="can.notes" :floor="floor" :viewport="viewport" :chosen="chosen" :names="names.marks" @grab="gestures.grab"
        @choose="(kind, id) => tool === 'select' && (store.selection = { kind, id })"
      />
      <CornersLayer v-if="shaped" :shape="shaped" :viewport="viewport" @grab="gestures.grabCorner" />
      <g v-if="worst" class="worst" :transform="`translate(${worst.x} ${worst.y})`" data-worst>
        <path d="M-7 -7L7 7M7 -7L-7 7" />
        <text x="11" y="4">worst, {{ worst.text }}</text>
      </g>
      <SeenLayer v-if="can.tools && tool === 'select'" part="lines" :floor="floor" :viewport="viewport" />
      <DifferenceLayer v-if="!today" :floor="floor" :viewport="viewport" />
      <GapsLayer v-if="can.ground" :floor="floor" :viewport="viewport" :active="tool === 'select'" />
      <PicksLayer v-if="can.ground && store.picks.length" :floor="floor" :viewport="viewport" @grab="gestures.grabPicks" />
      <SnapLayer v-if="snap" :snap="snap" :viewport="viewport" />
      <DraftLayer
        part="draft" :viewport="viewport" :draft="gestures.draft.value" :cursor="gestures.hand.pointer()"
        :path="gestures.path.value" :outline="tool === 'outline'"
      />
    </svg>
    <SheetFurniture :viewport="viewport" :mode="mode" :walls="walls" :openings="openings" :kinds="devices.map((d) => d.kind)" :relief="reliefHere" :against="against" @fit="fit()" @boxes="furniture = $event" />
    <RoomQuestions v-if="can.ground" part="marks" :floor="floor" :viewport="viewport" />
    <WallMeasure v-if="measuredWall" :wall="measuredWall" :viewport="viewport" />
    <LevelProbe v-if="probe && !deaf && can.air && !today" :probe="probe" :width="width" :height="height" />
    <div v-if="bare && tool === 'select'" class="blank">
      <h2>Nothing is drawn on {{ level?.name ?? 'this floor' }} yet</h2>
      <p>Draw a room from corner to corner: its walls are drawn with it.</p>
      <Button v-if="can.ground" label="Draw a room" size="small" @click="tool = 'room'" />
    </div>
  </div>
  <SeenLayer v-if="can.tools" part="band" :floor="floor" :viewport="viewport" />
  <RoomQuestions v-if="can.ground" part="band" :floor="floor" :viewport="viewport" />
  <ToolLine v-if="can.tools" :gestures="gestures" />
  </div>
</template>

<style scoped>
.view {
  display: flex;
  flex-direction: column;
}
.frame {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: hidden;
  background: var(--paper-deep);
}
.sheet {
  width: 100%;
  height: 100%;
  display: block;
  touch-action: none;
  outline: none;
  user-select: none;
}
.sheet:focus-visible {
  outline: 1px solid var(--heather);
  outline-offset: -1px;
}
.frame:not(.tool-select) .sheet {
  cursor: crosshair;
}
.shut,
.shut :deep(*) {
  pointer-events: none !important;
}
.worst {
  pointer-events: none;
}
.worst path {
  stroke: var(--rust);
  stroke-width: 2.5;
}
.worst text {
  font: 600 11px var(--mono);
  fill: var(--rust);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 5px;
  stroke-linejoin: round;
}
.blank {
  position: absolute;
  inset: 30% 20% auto;
  text-align: center;
  pointer-events: none;
  color: var(--granite);
}
.blank :deep(.p-button) {
  pointer-events: auto;
  margin-top: 10px;
}
</style>
