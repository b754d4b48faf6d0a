<script setup lang="ts">
import { computed, shallowRef } from 'vue'
import type { Point, SiteView } from '@/api/types'
import { linePath, rounded } from '@/document/geometry'
import { length } from '@/document/units'
import type { Viewport } from '@/sheet/useViewport'

/** Trees on the land, from above: where they stand, how high they are. */
const props = defineProps<{ groves: SiteView['groves']; viewport: Viewport; chosen: string | null }>()
const emit = defineEmits<{ choose: [id: string]; shape: [id: string, outline: Point[]] }>()
/** A corner that is held, and where it is by now. */
const held = shallowRef<{ grove: string; corner: number; at: Point } | null>(null)
const outlineOf = (g: SiteView['groves'][number]) => g.outline.map((p, k) => (held.value?.grove === g.grove && held.value.corner === k ? held.value.at : (p as Point)))

function spot(event: PointerEvent): Point {
  const box = (event.currentTarget as Element).closest('svg')!.getBoundingClientRect()
  return rounded(props.viewport.toWorld(event.clientX - box.left, event.clientY - box.top), STEP_M)
}
function grab(grove: string, corner: number, at: Point, event: PointerEvent): void {
  held.value = { grove, corner, at }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  if (held.value) held.value = { ...held.value, at: spot(event) }
}
function drop(g: SiteView['groves'][number]): void {
  const outline = outlineOf(g)
  const moved = held.value && outline.some((p, k) => p[0] !== g.outline[k]![0] || p[1] !== g.outline[k]![1])
  held.value = null
  if (moved) emit('shape', g.grove, outline)
}
function nudge(g: SiteView['groves'][number], corner: number, event: KeyboardEvent): void {
  const step = ARROWS[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  emit('shape', g.grove, g.outline.map((p, k) => (k === corner ? [p[0]! + step[0], p[1]! + step[1]] : [...p]) as Point))
}
const STEP_M = 0.05
const ARROWS: Record<string, Point> = { ArrowLeft: [-0.5, 0], ArrowRight: [0.5, 0], ArrowUp: [0, 0.5], ArrowDown: [0, -0.5] }
const LETTER_PX = 7
const rows = computed(() =>
  props.groves.map((g) => {
    const ring = outlineOf(g).map((p) => props.viewport.toScreen(p))
    const xs = ring.map((p) => p[0])
    const wide = Math.max(...xs) - Math.min(...xs)
    return { ...g, of: g, ring, path: `${linePath(ring as Point[])}Z`, spot: props.viewport.toScreen(g.at), named: wide > g.name.length * LETTER_PX || g.grove === props.chosen }
  }),
)
</script>

<template>
  <g>
    <defs>
      <pattern id="grove-leaves" width="18" height="16" patternUnits="userSpaceOnUse">
        <path d="M2 7a3.5 3.5 0 0 1 7 0M11 15a3.5 3.5 0 0 1 7 0" class="crown" />
      </pattern>
    </defs>
    <g
      v-for="g in rows" :key="g.grove" class="grove" :class="{ chosen: g.grove === chosen }" tabindex="0" role="button" :aria-label="`${g.name}, ${length(g.height_m)} high`" :data-grove="g.grove"
      @click.stop="emit('choose', g.grove)" @keydown.enter="emit('choose', g.grove)"
    >
      <path :d="g.path" class="under" /><path :d="g.path" class="leaves" />
      <template v-if="g.named">
        <text :x="g.spot[0]" :y="g.spot[1] - 2" text-anchor="middle" class="name">{{ g.name }}</text>
        <text :x="g.spot[0]" :y="g.spot[1] + 11" text-anchor="middle">{{ length(g.height_m) }} high</text>
      </template>
      <title>{{ g.name }}, {{ length(g.height_m) }} high</title>
    </g>
    <template v-for="g in rows.filter((r) => r.grove === chosen)" :key="`c-${g.grove}`">
      <circle
        v-for="([x, y], k) in g.ring" :key="k" :cx="x" :cy="y" r="6" class="corner" tabindex="0" role="button" :aria-label="`Corner ${k + 1} of ${g.name}`" :data-corner="k"
        @pointerdown.stop="grab(g.grove, k, g.outline[k] as Point, $event)" @pointermove="drag" @pointerup="drop(g.of)" @pointercancel="held = null" @keydown="nudge(g.of, k, $event)"
      />
    </template>
  </g>
</template>

<style scoped>
.grove {
  cursor: pointer;
  outline: none;
  font: 500 11px var(--mono);
}
.under {
  fill: var(--moss);
  fill-opacity: 0.14;
}
.leaves {
  fill: url(#grove-leaves);
  stroke: var(--moss);
  stroke-width: 1.4;
  stroke-dasharray: 6 3;
}
.crown {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1;
  stroke-opacity: 0.55;
}
.corner {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2;
  cursor: move;
}
@media (pointer: coarse) {
  .corner {
    r: 13px;
  }
}
text {
  fill: var(--granite);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.name {
  font: 600 12.5px var(--condensed);
  fill: var(--ink);
}
.grove:focus-visible .leaves,
.grove.chosen .leaves {
  stroke: var(--heather);
  stroke-width: 2;
}
</style>
