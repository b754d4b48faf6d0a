<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref, useTemplateRef } from 'vue'
import type { FarLine } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length, signed } from '@/document/units'
import FarWays from './FarWays.vue'

/** The land along a radio's line, to scale: ground, trees when the years are over, the line and its zone. */
const props = defineProps<{ line: FarLine }>()
const store = useDesign()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const band = ref<'5' | '60'>('5')
const part = ref<'line' | 'ways'>('line')
const point = computed(() => store.find('far_point', props.line.point))
const sight = computed(() => props.line.sights!.find((s) => s.band === band.value)!)
const PAD = { left: 46, right: 46, top: 12, bottom: 20 }
const STRETCH = [1, 2, 4, 8, 16]
const VERDICTS = { clear: 'Clear', near: 'Near the limit', blocked: 'Blocked' }

const slices = computed(() => props.line.slices!)
const zone = (s: (typeof slices.value)[number]) => (band.value === '5' ? s.zone_5_m : s.zone_60_m)
const low = computed(() => Math.min(...slices.value.map((s) => s.ground_m)) - 0.5)
const high = computed(() => Math.max(...slices.value.map((s) => Math.max(s.top_m, s.line_m + zone(s)))) + 0.5)
const perM = computed(() => Math.max(0.01, (width.value - PAD.left - PAD.right) / props.line.length_m!))
/** How many times higher than long it is drawn: land is flat to an eye that sees it true. */
const stretch = computed(() => STRETCH.filter((k) => (high.value - low.value) * perM.value * k <= height.value - PAD.top - PAD.bottom).at(-1) ?? 1)
const up = computed(() => Math.min(perM.value * stretch.value, (height.value - PAD.top - PAD.bottom) / (high.value - low.value)))
const x = (m: number) => PAD.left + m * perM.value
const y = (m: number) => height.value - PAD.bottom - (m - low.value) * up.value
const path = (of: (s: (typeof slices.value)[number]) => number) => slices.value.map((s, k) => `${k ? 'L' : 'M'}${x(s.at_m).toFixed(1)} ${y(of(s)).toFixed(1)}`).join('')
const foot = computed(() => `L${x(props.line.length_m!)} ${height.value}L${x(0)} ${height.value}Z`)
const envelope = computed(() => `${path((s) => s.line_m + zone(s))}${[...slices.value].reverse().map((s) => `L${x(s.at_m).toFixed(1)} ${y(s.line_m - zone(s)).toFixed(1)}`).join('')}Z`)
/** The part of the zone that has to be free, and at the tightest place what is free of it. */
const wanted = computed(() => path((s) => s.line_m - share.value * zone(s)))
const share = computed(() => sight.value.wanted_share)
const tight = computed(() => {
  const at = sight.value.at_m
  const nearest = [...slices.value].sort((a, b) => Math.abs(a.at_m - at) - Math.abs(b.at_m - at))[0]!
  const margin = sight.value.free_m - share.value * sight.value.zone_m
  const right = x(at) < width.value / 2
  return {
    x: x(at), from: y(nearest.top_m), to: y(nearest.top_m + sight.value.free_m), at: { x: x(at) + (right ? 7 : -7), y: y(nearest.top_m + sight.value.free_m / 2) + 4, anchor: right ? 'start' : 'end' },
    said: margin >= 0 ? `${length(margin, 1)} to spare` : `${length(-margin, 1)} short`,
  }
})

const masts = computed(() => [
  { end: 'room_mast_m' as const, name: 'at the rack', x: x(0), foot: slices.value[0]!.ground_m, size: point.value?.room_mast_m ?? 4 },
  { end: 'mast_m' as const, name: 'there', x: x(props.line.length_m!), foot: slices.value.at(-1)!.ground_m, size: point.value?.mast_m ?? 3 },
])
const held = ref<{ end: 'room_mast_m' | 'mast_m'; y: number; size: number; now: number } | null>(null)
const STEP_M = 0.1
const MOST_M = 60
function grab(mast: (typeof masts.value)[number], event: PointerEvent): void {
  held.value = { end: mast.end, y: event.clientY, size: mast.size, now: mast.size }
  ;(event.currentTarget as Element).closest('svg')?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  const h = held.value
  if (!h) return
  const size = Math.round((h.size + (h.y - event.clientY) / up.value) / STEP_M) * STEP_M
  held.value = { ...h, now: Number(Math.min(MOST_M, Math.max(0, size)).toFixed(1)) }
}
function drop(): void {
  const h = held.value
  held.value = null
  if (h && h.now !== h.size) raise({ [h.end]: h.now })
}
function nudge(mast: (typeof masts.value)[number], by: number): void {
  raise({ [mast.end]: Number(Math.min(MOST_M, Math.max(0, mast.size + by)).toFixed(1)) })
}
function raise(change: { room_mast_m?: number; mast_m?: number }): void {
  if (point.value) store.commit(`Antennas of ${point.value.name}`, [put('far_point', { ...point.value, ...change })])
}
const sizeOf = (mast: (typeof masts.value)[number]) => (held.value?.end === mast.end ? held.value.now : mast.size)
const loss = computed(() => {
  const { free_db, oxygen_db, rain_db, leaves_db, total_db } = sight.value.loss
  const parts = [`${free_db.toFixed(1)} the way`, oxygen_db >= 0.1 && `${oxygen_db.toFixed(1)} oxygen`, rain_db >= 0.1 && `${rain_db.toFixed(1)} rain`, leaves_db >= 0.1 && `${leaves_db.toFixed(1)} leaves`]
  return `${total_db.toFixed(1)} dB: ${parts.filter(Boolean).join(', ')}`
})
</script>

<template>
  <section class="far" aria-label="Section along the line" data-testid="far-section">
    <header>
      <h2>{{ line.name }}</h2>
      <span class="figure">{{ length(line.length_m!, 1) }}</span>
      <span class="band" role="group" aria-label="Shown">
        <Button label="The line" size="small" :text="part !== 'line'" :aria-pressed="part === 'line'" @click="part = 'line'" />
        <Button label="All ways" size="small" :text="part !== 'ways'" :aria-pressed="part === 'ways'" data-all-ways @click="part = 'ways'" />
      </span>
      <span v-if="part === 'line'" class="band" role="group" aria-label="Band">
        <Button v-for="b in ['5', '60'] as const" :key="b" :label="`${b} GHz`" size="small" :text="band !== b" :aria-pressed="band === b" @click="band = b" />
      </span>
      <span v-if="part === 'line'" class="verdict" :class="sight.verdict">{{ VERDICTS[sight.verdict] }}</span>
      <span v-if="part === 'line'" class="why" role="status">{{ sight.why }}</span>
      <Button
        v-if="part === 'line' && sight.masts_m && sight.verdict !== 'clear'" :label="`Raise to ${length(sight.masts_m[0], 1)} and ${length(sight.masts_m[1], 1)}`" size="small" outlined
        @click="raise({ room_mast_m: sight.masts_m[0], mast_m: sight.masts_m[1] })"
      />
    </header>
    <p v-if="line.off" role="alert" class="off">{{ line.off }}</p>
    <FarWays v-if="part === 'ways'" :point="line.point" />
    <div v-show="part === 'line'" ref="frame" class="frame">
      <svg v-if="width" :width="width" :height="height" role="group" :aria-label="`Land from the rack to ${line.name}`" @pointermove="drag" @pointerup="drop" @pointercancel="held = null">
        <path :d="envelope" class="zone" />
        <path :d="`${path((s) => s.top_m)}${foot}`" class="trees" />
        <path :d="`${path((s) => s.ground_m)}${foot}`" class="ground" />
        <path :d="path((s) => s.line_m)" class="line" :class="sight.verdict" />
        <path :d="wanted" class="wanted" />
        <path :d="`M${tight.x} ${tight.from}V${tight.to}`" class="tight" :class="sight.verdict" />
        <text :x="tight.at.x" :y="tight.at.y" :text-anchor="tight.at.anchor" class="margin" :class="sight.verdict" data-far-margin>{{ tight.said }}</text>
        <g v-for="m in masts" :key="m.end" class="mast">
          <path :d="`M${m.x} ${y(m.foot)}V${y(m.foot + sizeOf(m))}`" />
          <circle
            :cx="m.x" :cy="y(m.foot + sizeOf(m))" r="7" tabindex="0" role="slider" :aria-label="`Antenna ${m.name}`" aria-valuemin="0" :aria-valuemax="MOST_M" :aria-valuenow="sizeOf(m)" :data-mast="m.end"
            @pointerdown.stop="grab(m, $event)" @keydown.up.prevent="nudge(m, 0.5)" @keydown.down.prevent="nudge(m, -0.5)"
          />
          <text :x="m.x" :y="Math.max(10, y(m.foot + sizeOf(m)) - 11)" text-anchor="middle">{{ length(sizeOf(m), 1) }}</text>
        </g>
        <text :x="x(0)" :y="height - 5" text-anchor="middle">0</text>
        <text :x="x(line.length_m!)" :y="height - 5" text-anchor="middle">{{ length(line.length_m!, 0) }}</text>
        <text :x="width / 2" :y="height - 5" text-anchor="middle" class="quiet">{{ stretch > 1 ? `heights ${stretch} times` : 'to scale' }}; trees as they are in {{ point?.years }} years</text>
      </svg>
    </div>
    <p v-if="part === 'line'" class="foot">
      <span>Aim {{ line.bearing_deg!.toFixed(0) }}° there, {{ line.back_deg!.toFixed(0) }}° back, from true north<template v-if="line.compass_deg !== null && line.compass_deg !== undefined">, by compass {{ line.compass_deg.toFixed(0) }}° and {{ ((line.compass_deg + 180) % 360).toFixed(0) }}°</template>; tilt {{ signed(line.tilt_deg!, 1) }}°</span>
      <span>The way takes {{ loss }}</span>
      <span class="quiet">Masts and ladders, lightning and earth are licensed work; local code comes first.</span>
    </p>
  </section>
</template>

<style scoped>
.far {
  container-type: inline-size;
  border-top: 1px solid var(--granite-mid);
  padding: 4px 12px 8px;
  font-size: 12.5px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
h2 {
  font-size: 14px;
  margin: 0;
}
.verdict {
  font: 600 12px var(--condensed);
}
.verdict.clear {
  color: var(--moss);
}
.verdict.near {
  color: var(--gorse-ink, var(--gorse));
}
.verdict.blocked {
  color: var(--rust);
}
.why {
  flex: 1;
  min-width: 220px;
}
.off {
  margin: 0;
  color: var(--rust);
}
.frame {
  height: 190px;
  background: var(--paper-deep);
}
svg {
  display: block;
  touch-action: none;
  user-select: none;
}
.ground {
  fill: var(--granite-light);
  stroke: var(--granite);
  stroke-width: 1.2;
}
.trees {
  fill: var(--moss);
  fill-opacity: 0.35;
  stroke: none;
}
.zone {
  fill: var(--tarn);
  fill-opacity: 0.16;
  stroke: var(--tarn);
  stroke-width: 0.8;
}
.line {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.8;
}
.wanted {
  fill: none;
  stroke: var(--tarn);
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.margin {
  font-weight: 600;
}
.margin.blocked {
  fill: var(--rust);
}
.tight {
  stroke: var(--rust);
  stroke-width: 2.5;
}
.tight.clear {
  stroke: var(--moss);
}
.mast path {
  stroke: var(--ink);
  stroke-width: 2.4;
}
.mast circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2.4;
  cursor: ns-resize;
}
.mast circle:focus-visible {
  fill: var(--heather-wash);
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
text.quiet {
  fill: var(--granite);
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 5px 0 0;
}
@media (pointer: coarse) {
  .mast circle {
    r: 13px;
  }
}
</style>
