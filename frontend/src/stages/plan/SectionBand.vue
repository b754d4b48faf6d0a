<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Change, Point, SectionView } from '@/api/types'
import { put } from '@/document/edits'
import { within } from '@/document/picks'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { useMade } from '@/document/useMade'
import { roleOf } from '@/document/kinds'
import { cut, drawnCut } from '@/sheet/cut'
import MarkShape from '@/sheet/MarkShape.vue'
import { penFor } from '@/sheet/pens'
import { tool } from '@/sheet/tools'
import SectionHeights from './SectionHeights.vue'
import { useSectionHand } from './useSectionHand'

/** A cut through the building, to scale: storeys and what is between them, gear at its height, what is heard. */
const floor = defineModel<string>('floor', { required: true })
const emit = defineEmits<{ close: [] }>()
const store = useDesign()
/** Why there is no section, in words. */
const none = ref('')
const made = useMade()
const view = shallowRef<SectionView | null>(null)
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const EDGE = { left: 118, right: 48, top: 14, foot: 20 }
const LEVELS_DBM = [-80, -72, -67, -60, -52]
const NAME_PX = 46

let round = 0
async function load(): Promise<void> {
  const mine = ++round
  const said = cut.value?.project === store.id ? cut.value : null
  const ends = said ? { ax: said.a[0], ay: said.a[1], bx: said.b[0], by: said.b[1] } : {}
  const query = { floor: floor.value, ...ends }
  try {
    const found = await taken(api.GET('/api/projects/{project_id}/section', { params: { path: { project_id: store.id }, query } }))
    if (mine !== round) return
    view.value = found
    drawnCut.value = { a: found.a, b: found.b }
    none.value = ''
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    // Without a connection the last one stays up.
    if (mine !== round || error.isOffline) return
    view.value = drawnCut.value = null
    none.value = error.words
  }
}
watch(() => [store.revision, store.id, floor.value, cut.value], () => void load(), { immediate: true })
onScopeDispose(() => (drawnCut.value = null))

const scale = computed(() => {
  const v = view.value
  if (!v || !width.value) return 1
  return Math.max(1, Math.min((width.value - EDGE.left - EDGE.right) / v.length_m, (height.value - EDGE.top - EDGE.foot) / Math.max(3, v.high_m - v.low_m)))
})
const x = (at_m: number) => EDGE.left + at_m * scale.value
const y = (z_m: number) => height.value - EDGE.foot - (z_m - (view.value?.low_m ?? 0)) * scale.value
const tint = (dbm: number) => `var(--tint-${LEVELS_DBM.filter((l) => dbm >= l).length})`

/** Strips of what is heard, one for as long as the tint stays, and its range in words for each room. */
const heard = computed(() =>
  (view.value?.heard ?? []).flatMap((row) =>
    row.dbm.flatMap((dbm, k) => (dbm === null ? [] : [{ key: `${row.floor}-${k}`, x: x(k * row.step_m), y: y(row.z_m), wide: row.step_m * scale.value + 0.5, dbm, by: row.by[k] }])),
  ),
)
const ranges = computed(() =>
  (view.value?.rooms ?? []).flatMap((room) => {
    const row = view.value!.heard.find((h) => h.floor === room.floor)
    const inside = (row?.dbm ?? []).filter((d, k): d is number => d !== null && k * row!.step_m >= room.from_m && (k + 1) * row!.step_m <= room.to_m)
    const wide = (room.to_m - room.from_m) * scale.value
    if (!inside.length || wide < NAME_PX * 1.6) return []
    const [low, high] = [Math.min(...inside), Math.max(...inside)].map((d) => d.toFixed(0).replace('-', '−'))
    return [{ key: `${room.space}-${room.from_m}`, x: x((room.from_m + room.to_m) / 2), y: y(row!.z_m) + 16, words: low === high ? `${low}` : `${low} to ${high}` }]
  }),
)

const hand = useSectionHand({ view: () => view.value, scale: () => scale.value, align: (id, by) => void align(id, by) })

/** Move all of a storey along the cut. */
async function align(id: string, by_m: number): Promise<void> {
  const v = view.value!
  const way: Point = [((v.b[0] - v.a[0]) / v.length_m) * by_m, ((v.b[1] - v.a[1]) / v.length_m) * by_m]
  const picks = within(store, id)
  if (picks.length) await made.make(`Align ${store.find('floor', id)?.name}`, { do: 'shift', picks, by: way })
}

function choose(kind: 'device' | 'equipment_room' | 'space' | 'riser' | 'wall', id: string, on?: string): void {
  if (on) floor.value = on
  store.selection = { kind, id }
}

function change(id: string, to: { elevation_m?: number; ceiling_height_m?: number }): void {
  const storey = store.find('floor', id)
  if (storey) store.commit(`Height of ${storey.name}`, [put('floor', { ...storey, ...to })] satisfies Change[])
}
</script>

<template>
  <section class="section" aria-label="Section" data-testid="section">
    <header>
      <h2>Section</h2>
      <span class="quiet">A to B, {{ view ? length(view.length_m) : '' }}; dBm on 5 GHz where clients are held</span>
      <span v-if="hand.told.value" class="told" role="status">{{ hand.told.value }}</span>
      <span v-if="made.why.value" class="why" role="alert">{{ made.why.value }}</span>
      <span class="right">
        <Button label="Cut elsewhere" size="small" text @click="tool = 'cut'" />
        <Button v-if="cut" label="Along the building" size="small" text @click="cut = null" />
        <Button icon="pi pi-times" size="small" text aria-label="Close the section" @click="emit('close')" />
      </span>
    </header>
    <div ref="frame" class="frame">
      <svg v-if="view && width" :width="width" :height="height" role="group" aria-label="Section through the building" @pointermove="hand.move" @pointerup="hand.drop" @pointercancel="hand.cancel">
        <rect x="0" :y="y(view.ground_m)" :width="width" :height="Math.max(0, height - y(view.ground_m))" class="earth" />
        <path :d="`M0 ${y(view.ground_m)}H${width}`" class="ground" />
        <rect
          v-for="r in view.rooms" :key="`${r.space}-${r.from_m}`" :x="x(r.from_m)" :y="y(r.top_m)" :width="(r.to_m - r.from_m) * scale"
          :height="(r.top_m - r.foot_m) * scale" class="room" :class="{ outdoor: r.outdoor, chosen: store.selection?.id === r.space }"
          :data-cut-room="r.space" @click="choose('space', r.space, r.floor)"
        ><title>{{ r.name }}, {{ length(r.top_m - r.foot_m, 2) }} high</title></rect>
        <rect
          v-for="(s, i) in view.slabs" :key="i" :x="x(s.from_m)" :y="y(s.roof ? s.top_m + s.thick_m / 2 : s.top_m)" :width="(s.to_m - s.from_m) * scale"
          :height="s.thick_m * scale * (s.roof ? 0.5 : 1)" class="slab" :class="{ roof: s.roof }"
        ><title>{{ store.catalogue?.constructions[s.construction]?.label }}</title></rect>
        <rect
          v-for="w in view.walls" :key="`${w.wall}-${w.at_m}`" :x="x(w.at_m - w.thick_m / 2)" :y="y(w.top_m)" :width="Math.max(1.5, w.thick_m * scale)"
          :height="(w.top_m - w.foot_m) * scale" :fill="penFor(w.construction).tone" @click="choose('wall', w.wall, w.floor)"
        ><title>{{ store.catalogue?.constructions[w.construction]?.label }}</title></rect>
        <rect v-for="h in heard" :key="h.key" :x="h.x" :y="h.y - 4" :width="h.wide" height="8" :fill="tint(h.dbm)" class="heard"><title>{{ h.dbm.toFixed(0) }} dBm{{ h.by ? `, ${store.find('device', h.by)?.name}` : '' }}</title></rect>
        <text v-for="r in ranges" :key="r.key" :x="r.x" :y="r.y" text-anchor="middle" class="range">{{ r.words }}</text>
        <template v-for="r in view.rooms" :key="`n-${r.space}-${r.from_m}`">
          <text v-if="(r.to_m - r.from_m) * scale > Math.max(NAME_PX, r.name.length * 6.4)" :x="x((r.from_m + r.to_m) / 2)" :y="y(r.top_m) + 13" text-anchor="middle" class="name">{{ r.name }}</text>
        </template>
        <g v-for="r in view.risers" :key="r.riser" class="riser" role="button" @click="choose('riser', r.riser)">
          <path :d="`M${x(r.at_m) - 4} ${y(r.foot_m)}V${y(r.top_m)}M${x(r.at_m) + 4} ${y(r.foot_m)}V${y(r.top_m)}`" />
          <title>{{ r.name }}</title>
        </g>
        <g
          v-for="n in view.near" :key="n.id" class="gear" :class="{ chosen: store.selection?.id === n.id }" :transform="`translate(${x(n.at_m)} ${y(n.z_m)}) scale(0.8)`"
          role="button" :aria-label="`${n.name}, ${length(n.z_m, 2)} up`" :data-near="n.id" @click="choose(n.kind === 'rack' ? 'equipment_room' : 'device', n.id, n.floor)"
        >
          <circle r="13" class="halo" />
          <MarkShape :shape="n.kind === 'rack' ? 'hut' : (roleOf(store.catalogue, n.kind)?.mark ?? '')" />
          <title>{{ n.name }}, {{ length(Math.abs(n.off_m)) }} {{ n.off_m > 0 ? 'behind' : 'before' }} the cut</title>
        </g>
        <SectionHeights :storeys="view.storeys" :x="x" :y="y" :hand="hand" :floor="floor" @floor="floor = $event" />
      </svg>
      <SectionHeights v-if="view && width" typed :storeys="view.storeys" :x="x" :y="y" :hand="hand" :floor="floor" @change="change" @floor="floor = $event" />
      <p v-if="!view && none" class="quiet pad">No section yet: {{ none }}.</p>
    </div>
  </section>
</template>

<style scoped>
.section {
  height: 40%;
  min-height: 210px;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--granite-mid);
}
header {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 8px 0 12px;
  min-height: 30px;
  border-bottom: 1px solid var(--granite-light);
  font-size: 12px;
}
h2 {
  font-size: 13px;
}
.right {
  margin-left: auto;
  display: flex;
}
.told {
  color: var(--heather);
  font: 500 12px var(--mono);
}
.why {
  color: var(--rust);
}
.frame {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: hidden;
  background: var(--paper-deep);
}
svg {
  position: absolute;
  inset: 0;
  touch-action: none;
}
.earth {
  fill: var(--granite-light);
}
.ground {
  stroke: var(--granite);
  stroke-dasharray: 6 4;
}
.room {
  fill: var(--paper);
  cursor: pointer;
}
.room.outdoor {
  fill: none;
  stroke: var(--granite-mid);
  stroke-dasharray: 4 3;
}
.room.chosen {
  fill: var(--heather-wash);
}
.slab {
  fill: var(--granite);
}
.slab.roof {
  fill: var(--ink);
}
.heard {
  stroke: none;
}
.name,
.range {
  font: 500 11px var(--condensed);
  fill: var(--ink);
  pointer-events: none;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.range {
  font: 500 10.5px var(--mono);
  fill: var(--granite);
}
.riser {
  cursor: pointer;
}
.riser path {
  stroke: var(--tarn);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}
.gear {
  cursor: pointer;
  color: var(--ink);
}
.halo {
  fill: transparent;
}
.gear.chosen .halo {
  fill: var(--heather-wash);
  stroke: var(--heather);
  stroke-width: 2;
}
.pad {
  padding: 16px;
}
</style>
