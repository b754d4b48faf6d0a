<script setup lang="ts">
import { computed, ref } from 'vue'
import { CORDS } from '@/api/drawing'
import type { Cord, Elevation, PortUse, Thing } from '@/api/types'
import { FACE_MM, UNIT_MM, facesOf, portsOf, scaleFor, useOf, type Face } from './faces'

/** A rack from the front and from the side, to scale; what has ears is dragged from unit to unit. */
const props = defineProps<{ rack: Elevation; things: Thing[]; cords: Cord[]; ports: PortUse[]; chosen: string | null; corded: boolean }>()
const emit = defineEmits<{ choose: [thing: Thing]; port: [device: string]; place: [thing: Thing, unit: number] }>()

const HIGH_PX = 330
const RAIL_PX = 26
const NAMES_PX = 190
const GAP_PX = 28
const LABEL_PX = 13
const HOTTEST_W = 150

const scale = computed(() => scaleFor(props.rack.units, HIGH_PX))
const unit = computed(() => UNIT_MM * scale.value)
const high = computed(() => props.rack.units * unit.value)
const wide = computed(() => FACE_MM * scale.value)
const deep = computed(() => props.rack.deep_mm * scale.value)
const faces = computed(() => facesOf(props.things, props.rack.units, scale.value))
const sideX = computed(() => wide.value + 2 * RAIL_PX + NAMES_PX + GAP_PX)
const total = computed(() => sideX.value + deep.value + 8)
const units = computed(() => Array.from({ length: props.rack.units }, (_, k) => ({ number: props.rack.units - k, y: k * unit.value })))
const blanks = computed(() => props.rack.blanks.map((b) => (props.rack.units - b) * unit.value))
const heat = (thing: Thing) => Math.min(1, Math.max(0, thing.watts - thing.carried_w) / HOTTEST_W)

/** Names beside the frame, one under the other where faces are low. */
const names = computed(() => {
  const rows = faces.value.map((f) => ({ face: f, y: f.y + f.height / 2 })).sort((a, b) => a.y - b.y || a.face.x - b.face.x)
  let last = -LABEL_PX
  for (const row of rows) {
    row.y = Math.max(row.y, last + LABEL_PX)
    last = row.y
  }
  const over = last - high.value + 4
  return over > 0 ? rows.map((r, k) => ({ ...r, y: Math.min(r.y, high.value - 4 - (rows.length - 1 - k) * LABEL_PX) })) : rows
})

const spots = computed(() => {
  const found = new Map<string, [number, number]>()
  for (const face of faces.value) {
    found.set(`${face.thing.thing}/0`, [face.x + face.width / 2, face.y + face.height / 2])
    for (const port of portsOf(face)) found.set(`${face.thing.thing}/${port.number}`, [port.x, port.y])
  }
  return found
})
/** Each cord as it hangs, out of one port and into the other. */
const curves = computed(() =>
  props.cords.flatMap((cord) => {
    const a = spots.value.get(`${cord.from_thing}/${cord.from_port}`) ?? spots.value.get(`${cord.from_thing}/0`)
    const b = spots.value.get(`${cord.to_thing}/${cord.to_port}`) ?? spots.value.get(`${cord.to_thing}/0`)
    if (!a || !b) return []
    const sag = 8 + 0.12 * Math.abs(a[0] - b[0])
    const d = `M${a[0]} ${a[1]}C${a[0]} ${a[1] + (b[1] > a[1] ? sag : -sag)} ${b[0]} ${b[1] + (b[1] > a[1] ? -sag : sag)} ${b[0]} ${b[1]}`
    return [{ cord, d, tone: CORDS[cord.colour] ?? 'var(--granite)', lit: !!props.chosen && cord.link === `run-${props.chosen}` }]
  }),
)

const held = ref<{ thing: Thing; from: number; y: number; unit: number } | null>(null)
const svg = ref<SVGSVGElement>()
function grab(face: Face, event: PointerEvent): void {
  emit('choose', face.thing)
  if (face.thing.on || event.button !== 0) return
  held.value = { thing: face.thing, from: face.thing.unit ?? 1, y: event.clientY, unit: face.thing.unit ?? 1 }
  svg.value?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  const h = held.value
  if (!h) return
  const moved = Math.round((h.y - event.clientY) / unit.value)
  held.value = { ...h, unit: Math.min(props.rack.units - h.thing.units + 1, Math.max(1, h.from + moved)) }
}
function drop(): void {
  const h = held.value
  held.value = null
  if (h && h.unit !== h.from) emit('place', h.thing, h.unit)
}
/** Up and down by a unit, as by hand. */
function key(face: Face, event: KeyboardEvent): void {
  const step = { ArrowUp: 1, ArrowDown: -1 }[event.key]
  if (event.key === 'Enter') emit('choose', face.thing)
  if (!step || face.thing.on) return
  event.preventDefault()
  const next = (face.thing.unit ?? 1) + step
  if (next >= 1 && next <= props.rack.units - face.thing.units + 1) emit('place', face.thing, next)
}
const ghost = computed(() => (held.value && held.value.unit !== held.value.from ? { y: (props.rack.units - held.value.unit - held.value.thing.units + 1) * unit.value, high: held.value.thing.units * unit.value } : null))
const tone = (element: string, port: number) => {
  const use = useOf(props.ports, element, port)
  return [use?.uplink && 'uplink', use?.link && 'used', use?.feeds && 'feeds', use?.cage && 'cage', !!props.chosen && use?.device === props.chosen && 'lit']
}
const says = (element: string, port: number) => {
  const use = useOf(props.ports, element, port)
  return `Port ${port}: ${use?.name ?? 'free'}`
}
</script>

<template>
  <div class="scroll">
  <svg
    ref="svg" :width="total" :height="high + 30" :viewBox="`0 -22 ${total} ${high + 30}`" role="group" :aria-label="`Elevation of ${rack.name}, ${rack.units} units`"
    @pointermove="drag" @pointerup="drop" @pointercancel="held = null"
  >
    <text :x="RAIL_PX" y="-9" class="head">Front, {{ rack.units }} units</text>
    <text :x="sideX" y="-9" class="head">Side, {{ rack.deep_mm }} mm deep</text>
    <g :transform="`translate(${RAIL_PX} 0)`">
      <rect x="-8" y="-2" :width="wide + 16" :height="high + 4" class="frame" />
      <g v-for="u in units" :key="u.number">
        <path :d="`M0 ${u.y}H${wide}`" class="line" />
        <text v-if="unit > 11 || u.number % 5 === 0 || u.number === 1" x="-12" :y="u.y + unit / 2 + 3" text-anchor="end" class="unit">{{ u.number }}</text>
      </g>
      <rect v-for="y in blanks" :key="y" x="0" :y="y" :width="wide" :height="unit" class="blank"><title>Blank over a fan</title></rect>
      <g
        v-for="f in faces" :key="f.thing.thing" class="thing" :class="[f.thing.kind, { chosen: chosen === f.thing.element && chosen, held: held?.thing.thing === f.thing.thing }]"
        :data-thing="f.thing.thing" tabindex="0" role="button" :aria-label="`${f.thing.name}, ${f.thing.label}, unit ${f.thing.unit}`"
        @pointerdown="grab(f, $event)" @keydown="key(f, $event)"
      >
        <rect :x="f.x" :y="f.y + 0.5" :width="f.width" :height="f.height - 1" class="face" />
        <rect :x="f.x" :y="f.y + 0.5" :width="f.width" :height="f.height - 1" class="heat" :style="{ opacity: 0.35 * heat(f.thing) }" />
        <path v-if="f.thing.kind === 'shelf'" :d="`M${f.x} ${f.y + f.height - 3}h${f.width}`" class="board" />
        <template v-else-if="f.thing.kind === 'strip'">
          <circle v-for="k in 8" :key="k" :cx="f.x + (f.width * (k - 0.5)) / 8" :cy="f.y + f.height / 2" :r="Math.min(4.5, f.height / 3.4)" class="hole" />
        </template>
        <path v-else-if="f.thing.kind === 'battery'" :d="`M${f.x + 8} ${f.y + f.height - 6}v${12 - f.height}h${f.width / 4}v${f.height - 12}z`" class="cell" />
        <template v-else-if="f.thing.kind === 'recorder' || f.thing.kind === 'storage'">
          <rect v-for="k in 4" :key="k" :x="f.x + 6 + (k - 1) * (f.width / 4.6)" :y="f.y + 5" :width="f.width / 5.2" :height="Math.max(2, f.height - 10)" class="cell" />
        </template>
        <rect
          v-for="p in portsOf(f)" :key="p.number" :x="p.x - p.size / 2" :y="p.y - p.size / 2" :width="p.size" :height="p.size" class="port"
          :class="f.thing.kind === 'switch' ? tone(f.thing.element ?? '', p.number) : ''" @pointerdown.stop="useOf(ports, f.thing.element ?? '', p.number)?.device && emit('port', useOf(ports, f.thing.element ?? '', p.number)!.device!)"
        ><title>{{ f.thing.kind === 'switch' ? says(f.thing.element ?? '', p.number) : `${f.thing.name}, port ${p.number}` }}</title></rect>
      </g>
      <g v-if="corded" class="cords">
        <path v-for="(c, k) in curves" :key="k" :d="c.d" :stroke="c.tone" :class="{ lit: c.lit }"><title>{{ c.cord.name }}: {{ c.cord.length_m }} m, {{ c.cord.colour }}</title></path>
      </g>
      <rect v-if="ghost" x="0" :y="ghost.y" :width="wide" :height="ghost.high" class="ghost" />
    </g>
    <g :transform="`translate(${wide + 2 * RAIL_PX} 0)`">
      <g v-for="n in names" :key="n.face.thing.thing" class="said" :class="{ chosen: chosen && chosen === n.face.thing.element }" @click="emit('choose', n.face.thing)">
        <path :d="`M-14 ${n.face.y + n.face.height / 2}L-2 ${n.y}`" class="leader" />
        <text x="0" :y="n.y + 4"><tspan class="name">{{ n.face.thing.name }}</tspan><tspan v-if="n.face.thing.watts" dx="6" class="watts">{{ Math.round(n.face.thing.watts) }} W</tspan><tspan v-if="n.face.thing.by === 'person'" dx="6" class="watts">by hand</tspan></text>
      </g>
    </g>
    <g :transform="`translate(${sideX} 0)`">
      <rect x="0" y="-2" :width="deep" :height="high + 4" class="frame" />
      <rect
        v-for="f in faces.filter((g) => g.thing.kind !== 'shelf' || !things.some((t) => t.on === g.thing.thing))" :key="f.thing.thing" x="2" :y="f.y + 1" :width="Math.max(3, f.thing.deep_mm * scale)" :height="f.height - 2" class="face side" :class="{ deep: f.thing.deep_mm + 50 > rack.deep_mm }"
      ><title>{{ f.thing.name }}: {{ f.thing.deep_mm }} mm deep, {{ f.thing.kg }} kg</title></rect>
      <path v-if="rack.wall" :d="`M${deep + 4} -2V${high + 2}`" class="wall" />
    </g>
  </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.head {
  font: 600 11px var(--condensed);
  fill: var(--granite);
}
.frame {
  fill: var(--paper-deep);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.line {
  stroke: var(--granite-light);
}
.unit {
  font: 400 10px var(--mono);
  fill: var(--granite);
}
.blank {
  fill: var(--granite-light);
  stroke: var(--granite-mid);
  stroke-dasharray: 2 3;
}
.face {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1;
}
.side.deep {
  stroke: var(--rust);
  stroke-width: 2;
}
.heat {
  fill: var(--rust);
  pointer-events: none;
}
.thing {
  cursor: grab;
  touch-action: none;
  outline: none;
}
.thing.shelf > .face {
  fill: none;
  stroke: var(--granite-mid);
  stroke-dasharray: 2 3;
}
.thing:focus-visible .face,
.thing:hover .face {
  stroke: var(--heather);
}
.thing:focus-visible .face {
  stroke-width: 2.5;
}
.thing.chosen > .face {
  stroke: var(--heather);
  stroke-width: 2;
}
.thing.held {
  opacity: 0.5;
}
.board {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.hole,
.cell {
  fill: none;
  stroke: var(--granite);
}
.port {
  fill: var(--paper-deep);
  stroke: var(--granite);
  stroke-width: 0.8;
}
.port.used {
  fill: var(--granite);
}
.port.feeds {
  fill: var(--moss-line);
}
.port.uplink {
  fill: var(--tarn);
}
.port.cage {
  stroke-dasharray: 2 1;
}
.port.lit {
  stroke: var(--heather);
  stroke-width: 2.4;
}
.cords {
  pointer-events: none;
}
.cords path {
  fill: none;
  stroke-width: 1.5;
  opacity: 0.85;
}
.cords path.lit {
  stroke-width: 3.2;
  opacity: 1;
}
.ghost {
  fill: color-mix(in srgb, var(--heather) 20%, transparent);
  stroke: var(--heather);
  stroke-dasharray: 5 3;
  pointer-events: none;
}
.said {
  cursor: pointer;
}
.leader {
  stroke: var(--granite-mid);
}
.name {
  font: 600 12px var(--condensed);
  fill: var(--ink);
}
.watts {
  font: 400 11px var(--mono);
  fill: var(--granite);
}
.said.chosen .name {
  fill: var(--heather);
}
.wall {
  stroke: var(--wall-masonry);
  stroke-width: 5;
}
</style>
