<script setup lang="ts">
import { computed } from 'vue'
import type { Ray, SpotView } from '@/api/types'
import type { Viewport } from './useViewport'

/** The ray to the spot that was pressed: numbered where it crosses something, the others fainter. */
const props = defineProps<{ spot: SpotView; ray: Ray | null; viewport: Viewport }>()
const end = computed(() => props.viewport.toScreen(props.spot.at))
const lines = computed(() =>
  props.spot.rays.map((r) => {
    const [x, y] = props.viewport.toScreen(r.source)
    return { key: r.device, x, y, chosen: r.device === props.ray?.device }
  }),
)
const LEAST_PX = 17
/** Crossings that lie on one another, as two slabs do in plan, share a sign. */
const signs = computed(() => {
  const found: { x: number; y: number; text: string }[] = []
  for (const [i, c] of (props.ray?.crossings ?? []).entries()) {
    const [x, y] = props.viewport.toScreen(c.at)
    const near = found.find((f) => Math.hypot(f.x - x, f.y - y) < LEAST_PX)
    if (near) near.text += `,${i + 1}`
    else found.push({ x, y, text: String(i + 1) })
  }
  return found
})
</script>

<template>
  <g class="rays" data-layer="ray">
    <path v-for="l in lines" :key="l.key" :d="`M${l.x} ${l.y}L${end[0]} ${end[1]}`" :class="{ chosen: l.chosen }" :data-ray="l.key" />
    <g v-for="s in signs" :key="s.text" :transform="`translate(${s.x} ${s.y})`">
      <circle r="8" /><text y="4" text-anchor="middle">{{ s.text }}</text>
    </g>
    <path :d="`M${end[0] - 9} ${end[1]}h18M${end[0]} ${end[1] - 9}v18`" class="spot" />
  </g>
</template>

<style scoped>
.rays {
  pointer-events: none;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 0.35;
}
path.chosen {
  stroke: var(--heather);
  stroke-width: 2.5;
  opacity: 1;
}
path.spot {
  stroke: var(--heather);
  stroke-width: 3;
  opacity: 1;
}
circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 1.5;
}
text {
  font: 600 11px var(--mono);
  fill: var(--ink);
}
</style>
