<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Ray, SpotView } from '@/api/types'
import { length } from '@/document/units'
import MarkShape from '@/sheet/MarkShape.vue'

/** The ray from the side: storeys it passes, what it crosses; below, how the level falls on the way. */
const props = defineProps<{ spot: SpotView; ray: Ray }>()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const LEFT = 70
const RIGHT = 22
const HIGH = 112
const FALL_TOP = 132
const FALL_HIGH = 96
const MOST_PX_PER_M = 26
const END = 0.01
const SAID_PX = 128

const room = computed(() => Math.max(60, width.value - LEFT - RIGHT))
const x = (share: number) => LEFT + share * room.value
const rise = computed(() => {
  const zs = [props.ray.source_z_m, props.spot.z_m, ...props.ray.crossings.map((c) => c.z_m)]
  const seen = props.ray.storeys.filter((s) => s.high_m > Math.min(...zs) && s.low_m < Math.max(...zs))
  const low = Math.min(...zs, ...seen.map((s) => s.low_m)) - 0.2
  const high = Math.max(...zs, ...seen.map((s) => s.high_m)) + 0.2
  return { low, scale: Math.min(MOST_PX_PER_M, (HIGH - 18) / Math.max(1, high - low)), seen }
})
const y = (z: number) => HIGH - 4 - (z - rise.value.low) * rise.value.scale
/** Each height once: of storeys at one height the one that the spot or the access point is on. */
const storeys = computed(() => {
  const found = new Map<number, (typeof rise.value.seen)[number]>()
  for (const s of rise.value.seen) {
    if (!found.has(s.low_m) || s.floor === props.spot.floor || s.floor === props.ray.floor) found.set(s.low_m, s)
  }
  return [...found.values()].map((s) => ({ ...s, y: y(s.low_m) }))
})
/** Where a storey's line is drawn: over its own rooms, out to the edge where the way ends in them. */
const lines = computed(() =>
  storeys.value.flatMap((s) =>
    s.spans.map(([from, to]) => ({ key: `${s.floor}-${from}`, y: s.y, from: from < END ? LEFT - 8 : x(from!), to: to > 1 - END ? width.value - 6 : x(to!) })),
  ),
)
/** Names beside their lines; one that would lie on another, or on the ray, is left out: those of both ends come first. */
const names = computed(() => {
  const first = (s: { floor: string }) => (s.floor === props.ray.floor || s.floor === props.spot.floor ? 0 : 1)
  const placed: { key: string; name: string; x: number; y: number; left: boolean; wide: number }[] = []
  for (const s of [...storeys.value].sort((a, b) => first(a) - first(b))) {
    const name = s.name.length > 12 ? `${s.name.slice(0, 11)}…` : s.name
    const left = s.spans[0]![0] < END
    const wide = name.length * 6
    const at = { key: s.floor, name, left, wide, x: left ? LEFT - 10 : x(s.spans[0]![0]) + 4, y: left ? Math.min(s.y - 3, HIGH - 6) : Math.min(s.y + 11, HIGH + 7) }
    if (!placed.some((p) => p.left === left && Math.abs(p.y - at.y) < 12 && (left || Math.abs(p.x - at.x) < Math.max(p.wide, wide)))) placed.push(at)
  }
  return placed
})
const walls = computed(() =>
  props.ray.crossings.map((c, i) => {
    const storey = rise.value.seen.find((s) => c.z_m >= s.low_m && c.z_m < s.high_m)
    const level = c.kind === 'slab' || c.kind === 'roof'
    return { number: i + 1, x: x(c.share), y: y(c.z_m), level, top: y(storey?.high_m ?? c.z_m + 1), foot: y(storey?.low_m ?? c.z_m - 1), wide: Math.min(9, 2 + c.loss_db / 3), opening: c.kind === 'opening', leaves: c.kind === 'leaves' }
  }),
)
/** Numbers stand in two rows where they would lie on one another. */
const numbers = computed(() => {
  let last = -99
  let low = false
  return [...walls.value].sort((a, b) => a.x - b.x).map((w) => {
    low = w.x - last < 13 ? !low : false
    last = w.x
    return { ...w, up: low ? 21 : 9 }
  })
})

const weaker = computed(() => (props.ray.uplink_dbm < props.ray.downlink_dbm ? 'uplink' : 'downlink'))
const end = computed(() => Math.min(props.ray.uplink_dbm, props.ray.downlink_dbm))
/** What the level would be so far on the way: distance first, each crossing a step down. */
const fall = computed(() => {
  const points: [number, number][] = []
  const start = end.value + props.ray.loss_db
  let through = props.ray.antenna_db
  const free = (share: number) => props.ray.free_db + 10 * props.spot.exponent * Math.log10(Math.max(share, 1 / Math.max(props.ray.distance_m, 1)))
  let next = 0
  for (let k = 1; k <= 60; k++) {
    const share = k / 60
    while (next < props.ray.crossings.length && props.ray.crossings[next]!.share <= share) {
      const c = props.ray.crossings[next]!
      points.push([c.share, start - free(c.share) - through])
      through += c.takes_db
      points.push([c.share, start - free(c.share) - through])
      next++
    }
    points.push([share, start - free(share) - through])
  }
  return points
})
const scale = computed(() => {
  const levels = [...fall.value.map((p) => p[1]), end.value, props.spot.wants_dbm ?? end.value]
  const low = Math.floor((Math.min(...levels) - 3) / 10) * 10
  const high = Math.ceil(Math.max(...levels) / 10) * 10
  return { low, high }
})
const yLevel = (level: number) => FALL_TOP + FALL_HIGH * (1 - (level - scale.value.low) / Math.max(10, scale.value.high - scale.value.low))
/** The figure stands over the end of the curve, however steep that is. */
const saidY = computed(() => Math.min(yLevel(end.value) - 5, ...fall.value.filter((p) => x(p[0]) > x(1) - SAID_PX).map((p) => yLevel(p[1]))) - 6)
const curve = computed(() => fall.value.map(([s, l]) => `${x(s).toFixed(1)} ${yLevel(l).toFixed(1)}`).join('L'))
const marks = computed(() => {
  const step = scale.value.high - scale.value.low > 60 ? 20 : 10
  const found = []
  for (let l = scale.value.low; l <= scale.value.high; l += step) found.push(l)
  return found
})
</script>

<template>
  <div ref="frame" class="frame">
    <svg :width="width" height="250" role="img" :aria-label="`Section from ${ray.name} to the spot, ${length(ray.distance_m)}; ${ray.crossings.length} things are crossed`">
      <path v-for="l in lines" :key="l.key" :d="`M${l.from} ${l.y}H${l.to}`" class="floor" />
      <text v-for="n in names" :key="n.key" :x="n.x" :y="n.y" :text-anchor="n.left ? 'end' : 'start'" class="storey">{{ n.name }}</text>
      <template v-for="w in walls" :key="w.number">
        <path v-if="w.level" :d="`M${w.x - 26} ${w.y}h52`" class="slab" />
        <rect v-else :x="w.x - w.wide / 2" :y="w.top" :width="w.wide" :height="Math.max(4, w.foot - w.top)" :class="['wall', { opening: w.opening, leaves: w.leaves }]" />
      </template>
      <path :d="`M${x(0)} ${y(ray.source_z_m)}L${x(1)} ${y(spot.z_m)}`" class="ray" />
      <g :transform="`translate(${x(0)} ${y(ray.source_z_m)}) scale(0.75)`"><MarkShape shape="trig" /></g>
      <rect :x="x(1) - 3.5" :y="y(spot.z_m) - 6" width="7" height="12" rx="1.5" class="client" />
      <text v-for="n in numbers" :key="`n${n.number}`" :x="n.x" :y="n.up" text-anchor="middle" class="number">{{ n.number }}</text>
      <g v-for="m in marks" :key="m">
        <path :d="`M${LEFT} ${yLevel(m)}H${width - RIGHT}`" class="rule" /><text :x="LEFT - 6" :y="yLevel(m) + 4" text-anchor="end" class="level">{{ String(m).replace('-', '−') }}</text>
      </g>
      <path v-if="spot.wants_dbm !== null" :d="`M${LEFT} ${yLevel(spot.wants_dbm)}H${width - RIGHT}`" class="wants" />
      <path :d="`M${curve}`" class="fall" />
      <circle :cx="x(1)" :cy="yLevel(end)" r="4" class="end" />
      <text :x="x(1) - 8" :y="saidY" text-anchor="end" class="said">{{ end.toFixed(1).replace('-', '−') }} dBm {{ weaker }}</text>
      <text :x="LEFT" y="246" class="level">0</text><text :x="x(1)" y="246" text-anchor="end" class="level">{{ length(ray.distance_m) }}</text>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  overflow: hidden;
}
svg {
  display: block;
}
.floor {
  stroke: var(--granite);
  stroke-width: 1.5;
}
.storey,
.level {
  font: 400 11px var(--condensed);
  fill: var(--granite);
}
.wall {
  fill: var(--ink);
}
.wall.opening {
  fill: var(--tarn);
}
.wall.leaves {
  fill: var(--moss);
}
.slab {
  stroke: var(--ink);
  stroke-width: 5;
}
.ray {
  stroke: var(--heather);
  stroke-width: 2;
}
.client {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.number {
  font: 600 11px var(--mono);
  fill: var(--ink);
}
.rule {
  stroke: var(--granite-light);
}
.wants {
  stroke: var(--rust);
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
}
.fall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}
.end {
  fill: var(--heather);
}
.said {
  font: 600 12px var(--mono);
  fill: var(--heather);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
