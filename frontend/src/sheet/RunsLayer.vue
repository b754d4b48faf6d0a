<script setup lang="ts">
import { computed } from 'vue'
import type { Duct, Point, RunVerdict, Trunk, UplinkVerdict } from '@/api/types'
import { cableSaid } from '@/document/cables'
import { linePath } from '@/document/geometry'
import { length } from '@/document/units'
import { SPACE_WEIGHTS_PX } from '@/api/drawing'
import { overlaps, type Box } from './boxes'
import { dashOf, pathOf, penOf } from './pens'
import type { Movable } from './useGestures'
import type { Viewport } from './useViewport'

const props = defineProps<{
  runs: RunVerdict[]
  /** Where cables lie together; without them each run is drawn by itself. */
  trunks?: Trunk[]
  /** What a number must not lie on: marks and names. */
  taken?: Box[]
  /** Spots that the run of what is chosen is led by. */
  points?: { id: string; at: Point }[]
  uplinks: UplinkVerdict[]
  ducts: Duct[]
  floor: string
  chosen: string | null
  room: string | null
  /** Devices that are plugged into others, each with where both stand. */
  cords?: { device: string; name: string; from: Point; to: Point }[]
  viewport: Viewport
}>()
const emit = defineEmits<{ choose: [device: string]; room: [id: string]; grab: [kind: Movable, id: string, event: PointerEvent] }>()


const byId = computed(() => new Map(props.runs.map((r) => [r.id, r])))
/** Runs that share a way are one ribbon with its number; who lies alone is drawn as its category is. */
const shared = computed(() =>
  (props.trunks ?? []).filter((t) => t.floor === props.floor).flatMap((t) => {
    const runs = t.links.flatMap((id) => byId.value.get(id) ?? [])
    return runs.length ? [{ trunk: t, runs, path: linePath([t.a, t.b]) }] : []
  }),
)
const RIBBON_PX = 2.2
const WIDER_PX = 1.15
const WIDEST_PX = 13
const NUMBERED_PX = 30
const counted = (t: { runs: RunVerdict[] }) => t.runs.reduce((sum, r) => sum + r.cables, 0)
const ribbons = computed(() =>
  shared.value.filter((s) => s.runs.length > 1).map((s) => {
    const cables = counted(s)
    const [[ax, ay], [bx, by]] = [s.trunk.a, s.trunk.b].map((p) => props.viewport.toScreen(p)) as [[number, number], [number, number]]
    const names = s.runs.map((r) => r.name)
    return {
      key: s.trunk.id, path: s.path, cables,
      width: Math.min(WIDEST_PX, RIBBON_PX + WIDER_PX * Math.sqrt(cables)),
      bad: s.runs.some((r) => r.verdict === 'not_met' || r.verdict === 'test_first'),
      number: Math.hypot(bx - ax, by - ay) > NUMBERED_PX ? freeSpot([ax, ay], [bx, by]) : null,
      says: `${cables} cables side by side, ${s.trunk.wide_mm.toFixed(0)} mm as a bundle: ${names.slice(0, 8).join(', ')}${names.length > 8 ? ` and ${names.length - 8} more` : ''}`,
    }
  }),
)
const ALONG = [0.5, 0.35, 0.65, 0.2, 0.8]
const NUMBER_PX = 9
/** Where along a stretch its number lies on nothing; nowhere where it would always. */
function freeSpot([ax, ay]: [number, number], [bx, by]: [number, number]): { x: number; y: number } | null {
  for (const t of ALONG) {
    const [x, y] = [ax + (bx - ax) * t, ay + (by - ay) * t]
    const box = { left: x - NUMBER_PX, right: x + NUMBER_PX, top: y - NUMBER_PX, bottom: y + NUMBER_PX }
    if (!(props.taken ?? []).some((b) => overlaps(b, box))) return { x, y }
  }
  return null
}
const alone = computed(() =>
  shared.value.filter((s) => s.runs.length === 1).map((s) => {
    const run = s.runs[0]!
    return { key: s.trunk.id, run, weight: penOf(pathOf(run)).weight_px, dash: dashOf(pathOf(run)), path: s.path }
  }),
)

/** A run's own legs: of all without ribbons; else what lies in the ground, and all of what is chosen. */
const drawn = (run: RunVerdict, kind: string) => !props.trunks || kind === 'duct' || run.device === props.chosen
const legs = computed(() => [
  ...alone.value.filter((a) => a.run.device !== props.chosen),
  ...props.runs.flatMap((run) =>
    run.legs
      .filter((leg) => leg.points.length > 1 && leg.kind !== 'riser' && onSheet(leg) && drawn(run, leg.kind))
      .map((leg, i) => ({
        key: `${run.id}-${i}`,
        run,
        weight: SPACE_WEIGHTS_PX[leg.kind] ?? penOf(pathOf(run)).weight_px,
        dash: dashOf(pathOf(run)),
        path: linePath(leg.points),
      })),
  ),
])

/** Where extenders stand: so far along their runs, on this storey. */
const extenders = computed(() =>
  props.runs.flatMap((run) => {
    let far = 0
    return run.hops.slice(0, -1).flatMap((hop, k) => {
      far += hop.length_m
      const at = spotAlong(run, far)
      return at ? [{ key: `${run.id}-${k}`, run, at: props.viewport.toScreen(at) }] : []
    })
  }),
)

/** The spot so many metres along a run, where it lies on this storey. */
function spotAlong(run: RunVerdict, metres: number): readonly number[] | null {
  let left = metres
  for (const leg of run.legs) {
    if (left > leg.length_m) {
      left -= leg.length_m
      continue
    }
    if (!onSheet(leg) || leg.points.length < 2) return null
    for (let i = 1; i < leg.points.length; i++) {
      const [a, b] = [leg.points[i - 1]!, leg.points[i]!]
      const long = Math.hypot(b[0] - a[0], b[1] - a[1])
      if (left <= long || i === leg.points.length - 1) {
        const share = long ? Math.min(1, left / long) : 0
        return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]
      }
      left -= long
    }
  }
  return null
}

const ways = computed(() =>
  props.uplinks.flatMap((up) =>
    up.legs
      .filter((leg) => leg.points.length > 1 && leg.kind !== 'riser' && onSheet(leg))
      .map((leg, i) => ({ key: `${up.id}-${i}`, up, path: linePath(leg.points) })),
  ),
)

function onSheet(leg: RunVerdict['legs'][number]): boolean {
  if (leg.floor === props.floor) return true
  return leg.kind === 'duct' && props.ducts.some((d) => d.to_floor === props.floor)
}
</script>

<template>
  <g :transform="viewport.transform.value" data-layer="runs">
    <path
      v-for="r in ribbons" :key="r.key" :d="r.path" class="ribbon" :class="{ bad: r.bad, other: chosen }" :stroke-width="r.width"
      vector-effect="non-scaling-stroke" :data-ribbon="r.cables"
    ><title>{{ r.says }}</title></path>
    <template v-for="way in ways" :key="way.key">
      <path
        :d="way.path" class="way" :class="[way.up.medium, way.up.verdict, { chosen: way.up.room === room }]"
        :stroke-dasharray="dashOf(way.up.medium === 'fibre' ? 'fibre' : 'between')" :stroke-width="penOf('between').weight_px"
        vector-effect="non-scaling-stroke" :data-uplink="way.up.room"
      />
      <path :d="way.path" class="reach" vector-effect="non-scaling-stroke" @click.stop="emit('room', way.up.room ?? '')">
        <title>{{ way.up.name }}, {{ length(way.up.fixed_m) }} of {{ way.up.medium }}</title>
      </path>
    </template>
    <path v-for="c in cords" :key="c.device" :d="linePath([c.from, c.to])" class="cord" :class="{ chosen: c.device === chosen }" vector-effect="non-scaling-stroke" :data-cord="c.device" @click.stop="emit('choose', c.device)"><title>{{ c.name }}</title></path>
    <template v-for="leg in legs" :key="leg.key">
      <path
        :d="leg.path" class="run" :class="[leg.run.medium, leg.run.verdict, { chosen: leg.run.device === chosen, other: chosen && leg.run.device !== chosen }]"
        :stroke-dasharray="leg.dash" :stroke-width="leg.run.device === chosen ? leg.weight + 1.2 : leg.weight"
        vector-effect="non-scaling-stroke" :data-run="leg.run.device"
      />
      <path :d="leg.path" class="reach" vector-effect="non-scaling-stroke" @click.stop="emit('choose', leg.run.device)">
        <title>{{ leg.run.name }}, {{ length(leg.run.fixed_m) }} of {{ cableSaid(leg.run) }}</title>
      </path>
    </template>
  </g>
  <template v-for="r in ribbons" :key="`n-${r.key}`">
    <text v-if="r.number && !chosen" class="many" :x="r.number.x" :y="r.number.y" text-anchor="middle" dominant-baseline="central">{{ r.cables }}</text>
  </template>
  <g v-for="p in points ?? []" :key="p.id" class="pin" :transform="`translate(${viewport.toScreen(p.at).join(' ')})`" :data-way-point="p.id" @pointerdown="emit('grab', 'way_point', p.id, $event)">
    <circle r="13" class="hold" /><path d="M0 -7L7 0L0 7L-7 0Z" /><title>Its run goes by here: drag it</title>
  </g>
  <g v-for="e in extenders" :key="e.key" class="extender" :transform="`translate(${e.at[0]} ${e.at[1]})`" data-extender-mark @click.stop="emit('choose', e.run.device)">
    <path d="M-7 -4H7V4H-7ZM-3 -4V4M3 -4V4" /><title>Extender in the run of {{ e.run.name }}</title>
  </g>
</template>

<style scoped>
.pin {
  cursor: grab;
}
.pin .hold {
  fill: transparent;
}
.pin path {
  fill: var(--heather);
  stroke: var(--paper);
  stroke-width: 1.6;
}
.ribbon {
  fill: none;
  stroke: var(--granite);
  stroke-linecap: butt;
  opacity: 0.55;
}
.ribbon.bad {
  stroke: var(--rust);
}
.ribbon.other {
  opacity: 0.2;
}
.many {
  font: 600 11px var(--mono);
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 3.5px;
  paint-order: stroke;
  pointer-events: none;
}
.extender path {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
  cursor: pointer;
}
.run {
  fill: none;
  stroke: var(--ink);
  stroke-linejoin: round;
  opacity: 0.75;
}
.run.fibre {
  stroke: var(--tarn);
  stroke-linecap: round;
}
.run.not_met,
.run.test_first {
  stroke: var(--rust);
  opacity: 1;
}
.run.near {
  stroke: var(--gorse-ink);
  opacity: 1;
}
.run.other {
  opacity: 0.25;
}
.run.chosen {
  stroke: var(--heather);
  opacity: 1;
}
.cord {
  fill: none;
  stroke: var(--tarn);
  stroke-width: 2;
  cursor: pointer;
}
.cord.chosen {
  stroke: var(--heather);
}
.way {
  fill: none;
  stroke: var(--ink);
  opacity: 0.75;
}
.way.fibre {
  stroke: var(--tarn);
  stroke-linecap: round;
  opacity: 1;
}
.way.not_met,
.way.no_way {
  stroke: var(--rust);
}
.way.chosen {
  stroke: var(--heather);
  opacity: 1;
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 10;
  cursor: pointer;
}
</style>
