<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { CameraView, Device, Point } from '@/api/types'
import { put } from '@/document/edits'
import { linePath } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import type { Viewport } from './useViewport'

/** What the cameras of a storey see: the sharper the darker, cut by walls; of the one that is chosen its blind ground too, and a handle to turn it by. */
const props = defineProps<{ floor: string; devices: Device[]; viewport: Viewport; chosen: string | null; active: boolean }>()
const store = useDesign()
const SAID = { identify: 'identify', recognise: 'recognise', observe: 'observe', detect: 'detect' } as const
const HANDLE_PX = 38
const byId = computed(() => new Map(props.devices.map((d) => [d.id, d])))
const rings = (shapes: CameraView['zones'][number]['shapes']) =>
  shapes.flatMap((shape) => shape.map((ring) => `${linePath(ring.map((p) => props.viewport.toScreen(p as Point)))}Z`)).join('')
const towards = (at: Point, turn_deg: number, px: number): Point => {
  const [x, y] = props.viewport.toScreen(at)
  const turn = (turn_deg * Math.PI) / 180
  return [x + px * Math.sin(turn), y - px * Math.cos(turn)]
}
const views = computed(() =>
  (store.shown?.plan.views ?? []).flatMap((view) => {
    const device = byId.value.get(view.device)
    if (view.floor !== props.floor || !device) return []
    const lit = props.chosen === view.device
    const shown = lit ? view.zones : view.zones.filter((z) => z.level === 'recognise')
    return [{ view, device, lit, zones: [...shown].reverse().map((z) => ({ ...z, path: rings(z.shapes) })) }]
  }),
)
/** Whether anything is seen as far out as a zone reaches: no wall cuts all of it off before. */
const reached = (zone: CameraView['zones'][number], at: Point) => zone.shapes.some((shape) => shape[0]?.some((p) => Math.hypot(p[0] - at[0], p[1] - at[1]) > zone.reach_m * 0.97))
const turning = ref<number | null>(null)
const one = computed(() => {
  const row = views.value.find((v) => v.lit)
  if (!row) return null
  const { view, device } = row
  const scale = props.viewport.scale.value
  const turn = turning.value ?? device.azimuth_deg
  const [x, y] = props.viewport.toScreen(device.at)
  const blind = Math.min(view.blind_m ?? view.zones.at(-1)!.reach_m, view.zones.at(-1)!.reach_m) * scale
  const edge = [-1, 1].map((side) => towards(device.at, turn + (side * view.across_deg) / 2, blind))
  const wide = view.across_deg > 180 ? 1 : 0
  return {
    device,
    blind: `M${x} ${y}L${edge[0]}A${blind} ${blind} 0 ${wide} 1 ${edge[1]}Z`,
    sides: [-1, 1].map((side) => towards(device.at, turn + (side * view.across_deg) / 2, view.zones.at(-1)!.reach_m * scale)),
    at: [x, y],
    handle: towards(device.at, turn, HANDLE_PX),
    labels: view.zones.filter((z) => z.reach_m * scale > 26 && reached(z, device.at)).map((z) => ({ level: z.level, text: `${SAID[z.level]} ${length(z.reach_m)}`, at: towards(device.at, turn, z.reach_m * scale) })),
  }
})

function grab(event: PointerEvent): void {
  event.stopPropagation()
  ;(event.target as Element).setPointerCapture(event.pointerId)
  turning.value = one.value!.device.azimuth_deg
}
function turn(event: PointerEvent): void {
  if (turning.value === null || !one.value) return
  event.stopPropagation()
  const box = (event.target as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const [x, y] = one.value.at as [number, number]
  const bearing = (Math.atan2(event.clientX - box.left - x, y - (event.clientY - box.top)) * 180) / Math.PI
  turning.value = (Math.round(bearing / (event.shiftKey ? 1 : 5)) * (event.shiftKey ? 1 : 5) + 360) % 360
}
function drop(event: PointerEvent): void {
  event.stopPropagation()
  const device = one.value?.device
  if (device && turning.value !== null && turning.value !== device.azimuth_deg) {
    store.commit(`Azimuth of ${device.name}`, [put('device', { ...device, azimuth_deg: turning.value })])
  }
  turning.value = null
}
watch(() => props.chosen, () => (turning.value = null))
</script>

<template>
  <g data-layer="sight">
    <defs>
      <pattern id="blind-ground" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7" class="hatch" />
      </pattern>
    </defs>
    <g v-for="v in views" :key="v.view.device" :class="{ lit: v.lit }" :data-sight="v.view.device">
      <path v-for="z in v.zones" :key="z.level" :d="z.path" fill-rule="evenodd" class="zone" :class="z.level"><title>{{ v.view.name }}: {{ SAID[z.level] }} to {{ length(z.reach_m) }}</title></path>
    </g>
    <template v-if="one">
      <path :d="one.blind" class="blind" data-blind><title>Ground that it does not see</title></path>
      <path v-for="(side, k) in one.sides" :key="k" :d="`M${one.at}L${side}`" class="side" />
      <text v-for="l in one.labels" :key="l.level" :x="l.at[0]" :y="l.at[1] - 4" text-anchor="middle" class="said">{{ l.text }}</text>
      <g v-if="active" class="handle">
        <path :d="`M${one.at}L${one.handle}`" />
        <circle :cx="one.handle[0]" :cy="one.handle[1]" r="7" data-handle="azimuth" @pointerdown="grab" @pointermove="turn" @pointerup="drop" @pointercancel="turning = null"><title>Turn it; with shift degree by degree</title></circle>
        <text v-if="turning !== null" :x="one.handle[0] + 12" :y="one.handle[1] + 4" class="said">{{ turning }}°</text>
      </g>
    </template>
  </g>
</template>

<style scoped>
g[data-layer] {
  pointer-events: none;
}
.zone {
  fill: var(--tarn);
  fill-opacity: 0.1;
  stroke: var(--tarn);
  stroke-width: 1;
  stroke-opacity: 0.5;
}
.lit .zone {
  fill-opacity: 0.14;
}
.blind {
  fill: url(#blind-ground);
}
.hatch {
  stroke: var(--rust);
  stroke-width: 1.4;
  opacity: 0.7;
}
.side {
  stroke: var(--tarn);
  stroke-dasharray: 2 4;
  fill: none;
}
.said {
  font: 600 11px var(--condensed);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.handle path {
  stroke: var(--heather);
  stroke-width: 1.5;
}
.handle circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2.5;
  pointer-events: auto;
  cursor: grab;
}
</style>
