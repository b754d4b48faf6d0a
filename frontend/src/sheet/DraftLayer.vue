<script setup lang="ts">
import { computed } from 'vue'
import type { Point } from '@/api/types'
import { distance, pathLength } from '@/document/geometry'
import { fromShown, length } from '@/document/units'
import type { Viewport } from './useViewport'

const props = defineProps<{
  part: 'grid' | 'draft'
  viewport: Viewport
  draft: { from: Point; to: Point; shape: 'wall' | 'room' } | null
  /** Corners of a duct that is being drawn; the cursor is where the next would be. */
  path?: Point[]
  cursor: Point | null
  /** Corners of a room: the line comes round. */
  outline?: boolean
}>()

const step = computed(() => {
  const unit = fromShown(1)
  return unit * ([1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000].find((n) => n * unit * props.viewport.scale.value >= 34) ?? 5000)
})

const lines = computed(() => {
  const v = props.viewport
  const [west, north] = v.toWorld(0, 0)
  const [east, south] = v.toWorld(v.width.value, v.height.value)
  const out: string[] = []
  for (let x = Math.ceil(west / step.value) * step.value; x <= east; x += step.value) {
    out.push(`M${v.toScreen([x, 0])[0]} 0V${v.height.value}`)
  }
  for (let y = Math.ceil(south / step.value) * step.value; y <= north; y += step.value) {
    out.push(`M0 ${v.toScreen([0, y])[1]}H${v.width.value}`)
  }
  return out.join('')
})

const shape = computed(() => props.draft)
const a = computed(() => (shape.value ? props.viewport.toScreen(shape.value.from) : [0, 0]))
const b = computed(() => (shape.value ? props.viewport.toScreen(shape.value.to) : [0, 0]))
const duct = computed(() => {
  const corners = [...(props.path ?? []), ...(props.path?.length && props.cursor ? [props.cursor] : [])]
  if (corners.length < 2) return null
  const spots = corners.map((p) => props.viewport.toScreen(p))
  const size = props.outline ? length(distance(corners.at(-2)!, corners.at(-1)!), 2) : length(pathLength(corners))
  const [before, end] = spots.slice(-2) as [Point, Point]
  const at: Point = props.outline ? [(before[0] + end[0]) / 2, (before[1] + end[1]) / 2] : end
  return { points: spots.map((p) => p.join(',')).join(' '), end, at, size, first: spots[0]! }
})
const readout = computed(() => {
  if (!shape.value) return ''
  const { from, to } = shape.value
  if (shape.value.shape === 'wall') return length(distance(from, to), 2)
  return `${length(Math.abs(to[0] - from[0]), 2)} × ${length(Math.abs(to[1] - from[1]), 2)}`
})
</script>

<template>
  <path v-if="part === 'grid'" :d="lines" class="grid" />
  <g v-else-if="duct" class="draft">
    <polyline :points="duct.points" :class="{ duct: !outline }" />
    <line v-if="outline" :x1="duct.end[0]" :y1="duct.end[1]" :x2="duct.first[0]" :y2="duct.first[1]" class="rest" />
    <circle v-if="outline" :cx="duct.first[0]" :cy="duct.first[1]" r="5" class="first" />
    <circle :cx="duct.end[0]" :cy="duct.end[1]" r="3.5" />
    <text :x="duct.at[0]" :y="duct.at[1] - 10" text-anchor="middle">{{ duct.size }}</text>
  </g>
  <g v-else-if="shape" class="draft">
    <line v-if="shape.shape === 'wall'" :x1="a[0]" :y1="a[1]" :x2="b[0]" :y2="b[1]" />
    <rect
      v-else :x="Math.min(a[0]!, b[0]!)" :y="Math.min(a[1]!, b[1]!)" :width="Math.abs(a[0]! - b[0]!)"
      :height="Math.abs(a[1]! - b[1]!)"
    />
    <circle :cx="b[0]" :cy="b[1]" r="3.5" />
    <text :x="(a[0]! + b[0]!) / 2" :y="(a[1]! + b[1]!) / 2 - 8" text-anchor="middle">{{ readout }}</text>
  </g>
</template>

<style scoped>
.grid {
  fill: none;
  stroke: var(--granite-light);
  stroke-width: 1;
}
.draft {
  pointer-events: none;
  fill: none;
  stroke: var(--heather);
  stroke-width: 2.5;
}
.draft .duct {
  stroke-width: 4;
  stroke-dasharray: 1 5;
}
.draft .rest {
  stroke-width: 1;
  stroke-dasharray: 4 4;
}
.draft circle {
  fill: var(--heather);
}
.draft text {
  font: 500 12px var(--mono);
  fill: var(--heather);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
