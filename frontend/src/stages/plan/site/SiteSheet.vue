<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useBeside } from '@/answers/useBeside'
import { api, taken } from '@/api/client'
import type { LandView, Point, SiteView } from '@/api/types'
import { boundsOf, linePath } from '@/document/geometry'
import { put } from '@/document/edits'
import { roleOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { length, signed } from '@/document/units'
import { useMade } from '@/document/useMade'
import { overlaps, type Box } from '@/sheet/boxes'
import DraftLayer from '@/sheet/DraftLayer.vue'
import MarkShape from '@/sheet/MarkShape.vue'
import { useViewport } from '@/sheet/useViewport'
import FarLand from './FarLand.vue'
import FarSection from './FarSection.vue'
import SiteGaps from './SiteGaps.vue'
import SiteGroves from './SiteGroves.vue'
import SitePlaces from './SitePlaces.vue'
import SiteTable from './SiteTable.vue'
import { CARRIED } from './carried'
import { measuredGaps } from './gaps'
import { useSiteHand, type SiteTool } from './useSiteHand'

/** The whole site from above: buildings, how far apart and how high, what lies in the ground between. */
const emit = defineEmits<{ close: []; floor: [id: string] }>()
const store = useDesign()
const made = useMade()
const trouble = ref('')
/** One feed to several places, while it is shown on the drawing. */
const tree = shallowRef<NonNullable<LandView['feed']> | null>(null)
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const viewport = useViewport()

const ask = (project_id: string) => taken(api.GET('/api/projects/{project_id}/site', { params: { path: { project_id } } }))
const askFar = (project_id: string) => taken(api.GET('/api/projects/{project_id}/far', { params: { path: { project_id } } }))
// Without a connection the last one stays up.
const { answer: view } = useBeside(ask, { failed: (error) => !error.isOffline && (trouble.value = error.words) })
const { answer: far } = useBeside(askFar, { wanted: () => store.all('far_point').length > 0, failed: (error) => !error.isOffline && (trouble.value = error.words) })
const places = computed(() => store.all('far_point').map((p) => ({ p, line: far.value?.lines.find((l) => l.point === p.id && l.room) })))
const reached = computed(() => places.value.find(({ p }) => p.id === chosen.value && store.selection?.kind === 'far_point')?.line)
watch(view, (now, before) => {
  trouble.value = ''
  if (now && now.buildings.length !== before?.buildings.length) void nextTick(fit)
})

function fit(): void {
  const v = view.value
  if (!v || !width.value) return
  const points = [...store.all('far_point').map((p) => p.at), ...v.buildings.flatMap((b) => b.outline.flat()), ...v.ducts.flatMap((d) => d.path), ...v.services.flatMap((s) => s.path), ...v.groves.flatMap((g) => g.outline), ...v.gaps.flatMap((g) => [g.from_at, g.to_at])]
  if (!points.length) return viewport.fit([0, 0, 40, 30])
  // Some land round it, for what comes there; the words under a small building are wider than it is.
  const [west, south, east, north] = boundsOf(points)
  const words = ((east - west) * NAME_PX) / 2 / Math.max(width.value - NAME_PX, NAME_PX)
  const land = Math.max(0, (LEAST_LAND_M - Math.max(east - west, north - south)) / 2)
  const high = Math.max(land, NAMES_SHARE * (north - south)) // names stand below what lies at an edge
  viewport.fit([west - Math.max(words, land), south - high, east + Math.max(words, land), north + high])
}
const LEAST_LAND_M = 40
const NAMES_SHARE = 0.08
const REFIT_SHARE = 0.1
watch([width, height], ([w, h], [before, high]) => {
  viewport.width.value = w
  viewport.height.value = h
  // Also where the table folds out below: it would hide part of the drawing.
  if (w && (!before || Math.abs(h - high) > REFIT_SHARE * high)) void nextTick(fit)
})

const hand = useSiteHand({ viewport, view: () => view.value, made })
const chosen = computed(() => store.selection?.id ?? null)
const building = computed(() => hand.building.value)
const by = (id: string) => (hand.carried.value?.id === id ? `translate(${hand.carried.value.by.join(' ')})` : undefined)
const NAME_PX = 150
function boxOf(b: SiteView['buildings'][number]): Box {
  const [west, south, east, north] = boundsOf(b.outline.flat())
  const [[left, bottom], [right, top]] = [viewport.toScreen([west, south]), viewport.toScreen([east, north])]
  return { left, right, top, bottom }
}
const names = computed(() =>
  (view.value?.buildings ?? []).map((b) => {
    const box = boxOf(b)
    const middle = (box.left + box.right) / 2
    const words = (y: number) => ({ left: middle - NAME_PX / 2, right: middle + NAME_PX / 2, top: y - 20, bottom: y + 24 })
    // A building that is drawn smaller than its name has it below, or above where another stands below.
    const within = box.right - box.left > NAME_PX
    const sides = [box.bottom + 22, box.top - 30]
    const free = sides.find((y) => !view.value!.buildings.some((o) => o !== b && overlaps(boxOf(o), words(y))))
    const [x, y] = within ? viewport.toScreen(b.at) : [middle, free ?? sides[0]!]
    return { b, x, y, ground: b.ground_m ? `ground ${signed(b.ground_m, 2)} m` : 'ground 0', size: `${b.storeys} ${b.storeys === 1 ? 'storey' : 'storeys'}, ${length(b.top_m - b.ground_m)} high` }
  }),
)
/** Of a low sheet only names are written: a section or a table of ways lies under it then. */
const low = computed(() => height.value < LOW_PX)
/** What the names of buildings and the buildings themselves take of the sheet. */
const built = computed<Box[]>(() => [
  ...names.value.map(({ x, y }) => ({ left: x - BUILDING_PX, right: x + BUILDING_PX, top: y - 20, bottom: low.value ? y : y + 24 })),
  ...(view.value?.buildings ?? []).map(boxOf),
])
const meetings = computed(() => [
  ...(view.value?.ducts ?? []).flatMap((d) => d.meetings.map((m) => ({ ...m, name: d.name, key: `${d.duct}-${m.service}-${m.from_m}` }))),
  ...(view.value?.far ?? []).flatMap((f) => f.meetings.map((m) => ({ ...m, name: f.name, key: `${f.point}-${m.service}-${m.from_m}` }))),
])
/** Where each duct's words stand: over or under a leg, where nothing else is written. */
const ductWords = computed(() => {
  const v = view.value
  if (!v || low.value) return []
  const taken = [...built.value, ...measuredGaps(v.gaps, building.value).map((g) => about(between(g.from_at, g.to_at), 0, GAP_PX)), ...meetings.value.map((m) => about(between(m.at, m.at), 0, GAP_PX))]
  return v.ducts.flatMap((d) => {
    const legs = d.path.slice(1).map((p, k) => [d.path[k]!, p] as const)
    const spots = legs.flatMap(([a, b]) => [0.5, 0.25, 0.75].map((share) => between(a, b, share)))
    const options = spots.flatMap(([x, y]) => [[x, y], [x, y + WORDS_DOWN_PX]] as Point[])
    const free = options.find((s) => !taken.some((t) => overlaps(t, about(s, WORDS_UP_PX))))
    if (!free) return [] // the list below names it
    taken.push(about(free, WORDS_UP_PX))
    return [{ ...d, x: free[0], y: free[1] }]
  })
})
function between(a: readonly number[], b: readonly number[], share = 0.5): Point {
  return viewport.toScreen([a[0]! + (b[0]! - a[0]!) * share, a[1]! + (b[1]! - a[1]!) * share])
}
function about([x, y]: readonly number[], up: number, half = BUILDING_PX): Box {
  return { left: x! - half, right: x! + half, top: y! - up - 14, bottom: y! - up + 14 }
}
const LOW_PX = 300
const WORDS_UP_PX = 18
const WORDS_DOWN_PX = 46
const GAP_PX = 34
const BUILDING_PX = 72
const TOOLS: { id: SiteTool; label: string; icon: string; hint: string }[] = [
  { id: 'select', label: 'Choose', icon: 'pi pi-arrow-up-left', hint: 'Drag a building to where it stands, or choose it and type how far it is from another' },
  { id: 'house', label: 'Building', icon: 'pi pi-home', hint: 'Press two of its corners that lie across; its rooms are drawn on its own plan' },
  { id: 'duct', label: 'Duct', icon: 'pi pi-minus', hint: 'Press where it leaves a building, at each corner, and in the other building' },
  { id: 'far', label: 'Far place', icon: 'pi pi-flag', hint: 'Press where something is to be reached: an outbuilding, a gate, a pond, a field' },
  { id: 'grove', label: 'Trees', icon: 'pi pi-cloud', hint: 'Press round the trees or along a hedge; Enter, or a second press, closes it. Every signal through their leaves is weaker' },
  { id: 'service', label: 'Buried', icon: 'pi pi-ellipsis-h', hint: 'Press along what others have in the ground; Enter, or a second press, ends it' },
]
const hint = computed(() => made.why.value || hand.told.value || trouble.value || TOOLS.find((t) => t.id === hand.tool.value)!.hint)

function open(id: string): void {
  const there = view.value?.buildings.find((b) => b.building === id)
  if (!there) return
  emit('floor', there.floor)
  emit('close')
}
/** Trees as they stand round by now. */
function shape(id: string, outline: Point[]): void {
  const grove = store.find('grove', id)
  if (grove) store.commit(`Shape of ${grove.name}`, [put('grove', { ...grove, outline })])
}
function choose(kind: 'duct' | 'buried_service' | 'grove' | 'far_point' | 'device' | 'equipment_room' | 'line_entry', id: string): void {
  if (hand.tool.value !== 'select') return
  hand.building.value = null
  store.selection = { kind, id }
}
</script>

<template>
  <div class="site" data-testid="site">
    <div class="tools" role="toolbar" aria-label="Site">
      <Button
        v-for="t in TOOLS" :key="t.id" :label="t.label" size="small" :text="hand.tool.value !== t.id" :aria-pressed="hand.tool.value === t.id"
        @click="hand.take(t.id)"
      />
      <Button v-if="hand.path.value.length > 1" label="Done" size="small" outlined @click="hand.finish()" />
      <span class="hint" :class="{ why: made.why.value || trouble }" role="status">{{ hint }}</span>
      <Button icon="pi pi-expand" size="small" text aria-label="Show all of the site" @click="fit()" />
    </div>
    <div ref="frame" class="frame">
      <svg
        v-if="width" class="sheet" :width="width" :height="height" tabindex="0" role="application" aria-label="Site from above. The list below says the same."
        @pointerdown="hand.down" @pointermove="hand.move" @pointerup="hand.up" @pointercancel="hand.cancel" @wheel.prevent="hand.wheel" @keydown="hand.key"
      >
        <DraftLayer part="grid" :viewport="viewport" :draft="null" :cursor="null" />
        <template v-if="view">
          <SiteGroves :groves="view.groves" :viewport="viewport" :chosen="chosen" @choose="choose('grove', $event)" @shape="shape" />
          <g :transform="viewport.transform.value">
            <path v-for="y in view.yards" :key="y.space" :d="`${linePath(y.outline)}Z`" class="yard" vector-effect="non-scaling-stroke"><title>{{ y.name }}</title></path>
            <path v-for="s in view.services" :key="s.service" :d="linePath(s.path)" class="service" :class="[s.carries, { told: !s.found, chosen: s.service === chosen }]" vector-effect="non-scaling-stroke" />
            <path v-for="d in view.ducts" :key="d.duct" :d="linePath(d.path)" class="duct" :class="{ chosen: d.duct === chosen, there: d.dug === 'there' }" vector-effect="non-scaling-stroke" />
            <path v-for="s in view.services" :key="`r-${s.service}`" :d="linePath(s.path)" class="reach" vector-effect="non-scaling-stroke" :data-service="s.service" @click.stop="choose('buried_service', s.service)"><title>{{ s.name }}</title></path>
            <path v-for="d in view.ducts" :key="`r-${d.duct}`" :d="linePath(d.path)" class="reach" vector-effect="non-scaling-stroke" :data-duct="d.duct" @click.stop="choose('duct', d.duct)"><title>{{ d.name }}</title></path>
            <g
              v-for="b in view.buildings" :key="b.building" class="house" :class="{ chosen: b.building === building }" :transform="by(b.building)" tabindex="0" role="button"
              :aria-label="`${b.name}, ${length(b.top_m - b.ground_m)} high`" :aria-pressed="b.building === building" :data-building="b.building"
              @pointerdown="hand.grab(b.building, $event)" @dblclick="open(b.building)" @keydown.enter="hand.building.value = b.building"
            >
              <path :d="b.outline.map((r) => `${linePath(r)}Z`).join('')" fill-rule="evenodd" vector-effect="non-scaling-stroke" />
            </g>
          </g>
          <SiteGaps v-if="!low || building" :gaps="view.gaps" :viewport="viewport" :building="building" :name="(id) => store.find('building', id)?.name ?? ''" @apart="hand.apart" />
          <g v-for="n in names" :key="n.b.building" class="label" :transform="`translate(${n.x} ${n.y})`">
            <text y="-8" text-anchor="middle" class="name">{{ n.b.name }}</text>
            <template v-if="!low"><text y="7" text-anchor="middle">{{ n.ground }}</text><text y="20" text-anchor="middle">{{ n.size }}</text></template>
          </g>
          <g v-for="d in ductWords" :key="`l-${d.duct}`" class="label" :transform="`translate(${d.x} ${d.y})`">
            <text y="-20" text-anchor="middle" class="name">{{ d.name }}</text>
            <text y="-8" text-anchor="middle">{{ length(d.length_m) }} · {{ d.dug === 'there' ? 'lies there' : `${length(d.depth_m, 2)} deep` }}</text>
          </g>
          <g v-for="s in view.services" :key="`n-${s.service}`" class="label" :transform="`translate(${viewport.toScreen(s.path[0]!).join(' ')})`">
            <circle r="9" class="token" :class="s.carries" /><text y="4" text-anchor="middle" class="name">{{ CARRIED[s.carries].letter }}</text>
            <title>{{ s.name }}, {{ CARRIED[s.carries].name }}, {{ s.found ? 'located' : 'not located yet' }}</title>
          </g>
          <g v-for="m in meetings" :key="m.key" class="meeting" :transform="`translate(${viewport.toScreen(m.at).join(' ')})`">
            <path d="M-8 -8L8 8M8 -8L-8 8" /><text x="12" y="4">by hand</text>
            <title>{{ m.name }} near {{ store.find('buried_service', m.service)?.name }}</title>
          </g>
          <g
            v-for="m in view.marks" :key="m.id" class="mark" :transform="`translate(${viewport.toScreen(m.at).join(' ')}) scale(0.75)`"
            @click.stop="choose(m.kind === 'equipment_room' || m.kind === 'line_entry' ? m.kind : 'device', m.id)"
          >
            <MarkShape :shape="m.kind === 'equipment_room' ? 'hut' : (roleOf(store.catalogue, m.kind)?.mark ?? 'spring')" /><title>{{ m.name }}</title>
          </g>
          <SitePlaces :places="places" :ways="view.far" :viewport="viewport" :chosen="chosen" :taken="built" :tree="tree" @choose="choose('far_point', $event)" />
          <DraftLayer part="draft" :viewport="viewport" :draft="hand.drawn.value" :cursor="hand.cursor.value" :path="hand.drawn.value ? [] : hand.path.value" :outline="hand.tool.value === 'grove'" />
        </template>
      </svg>
      <p v-if="view && !view.buildings.length" class="quiet none">No building is drawn yet. Draw a room on the plan: its building stands here then.</p>
    </div>
    <FarSection v-if="reached" :key="reached.point" :line="reached" />
    <div v-else-if="view" class="below">
      <SiteTable :view="view" :building="building" @building="hand.building.value = $event" @open="open" @choose="choose" @apart="hand.apart" />
      <FarLand v-if="places.length > 1" :drawn="!!tree" @draw="tree = $event ?? null" @choose="choose('far_point', $event)" />
    </div>
  </div>
</template>

<style scoped>
.site {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.below {
  max-height: 42%;
  overflow: auto;
}
.tools {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 3px 8px;
  white-space: nowrap;
  border-bottom: 1px solid var(--granite-light);
}
.hint {
  white-space: normal;
  margin: 0 auto 0 8px;
  font-size: 12px;
  color: var(--granite);
}
.hint.why {
  color: var(--rust);
}
.frame {
  position: relative;
  flex: 1;
  min-height: 160px;
  overflow: hidden;
  background: var(--paper-deep);
}
.sheet {
  position: absolute;
  inset: 0;
  touch-action: none;
  user-select: none;
  outline: none;
}
.yard {
  fill: none;
  stroke: var(--granite-mid);
  stroke-dasharray: 4 3;
}
.house {
  cursor: grab;
  outline: none;
}
.house path {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2.2;
}
.house:focus-visible path,
.house.chosen path {
  stroke: var(--heather);
  fill: var(--heather-wash);
}
.duct {
  fill: none;
  stroke: var(--tarn);
  stroke-width: 4;
}
.duct.there {
  stroke-dasharray: 2 4;
}
.service {
  fill: none;
  stroke: var(--granite);
  stroke-width: 2;
}
.service.told {
  stroke-dasharray: 8 5;
}
.service.gas,
.service.electricity {
  stroke: var(--rust);
}
.duct.chosen,
.service.chosen {
  stroke: var(--heather);
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 16;
  cursor: pointer;
}
.label {
  pointer-events: none;
  font: 500 11px var(--mono);
}
.label text {
  fill: var(--granite);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.label .name {
  font: 600 12.5px var(--condensed);
  fill: var(--ink);
}
.token {
  fill: var(--paper);
  stroke: var(--granite);
  stroke-width: 1.5;
}
.token.gas,
.token.electricity {
  stroke: var(--rust);
}
.meeting {
  pointer-events: none;
}
.meeting path {
  stroke: var(--rust);
  stroke-width: 2.5;
}
.meeting text {
  font: 600 11px var(--condensed);
  fill: var(--rust);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.mark {
  color: var(--ink);
  cursor: pointer;
}
.none {
  position: absolute;
  inset: 40% 20% auto;
  text-align: center;
}
</style>
