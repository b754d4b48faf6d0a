<script setup lang="ts">
import { computed } from 'vue'
import type { SiteView } from '@/api/types'
import { length } from '@/document/units'
import type { Viewport } from '@/sheet/useViewport'
import { measuredGaps } from './gaps'

/** How far buildings stand apart: between all that see one another, or from the one that is chosen. */
const props = defineProps<{ gaps: SiteView['gaps']; viewport: Viewport; building: string | null; name: (id: string) => string }>()
defineEmits<{ apart: [id: string, other: string, gap_m: number] }>()

const LEAST_PX = 26
const lines = computed(() =>
  measuredGaps(props.gaps, props.building)
    .flatMap((g) => {
      const [[ax, ay], [bx, by]] = [props.viewport.toScreen(g.from_at), props.viewport.toScreen(g.to_at)]
      const size = Math.hypot(bx - ax, by - ay)
      if (size < LEAST_PX) return []
      const [nx, ny] = [(-(by - ay) / size) * 6, ((bx - ax) / size) * 6]
      const tick = (x: number, y: number) => `M${x - nx} ${y - ny}L${x + nx} ${y + ny}`
      return [{ key: `${g.first}-${g.second}`, path: `M${ax} ${ay}L${bx} ${by}${tick(ax, ay)}${tick(bx, by)}`, x: (ax + bx) / 2, y: (ay + by) / 2, words: length(g.gap_m, 2), title: `${props.name(g.first)} to ${props.name(g.second)}` }]
    }),
)
</script>

<template>
  <g class="gaps" data-layer="gaps-of-site">
    <g v-for="l in lines" :key="l.key">
      <path :d="l.path" :class="{ chosen: building }" />
      <text :x="l.x" :y="l.y - 5" text-anchor="middle">{{ l.words }}</text>
      <title>{{ l.title }}</title>
    </g>
  </g>
</template>

<style scoped>
.gaps {
  pointer-events: none;
}
path {
  fill: none;
  stroke: var(--granite);
  stroke-width: 1.2;
}
path.chosen {
  stroke: var(--heather);
  stroke-width: 1.8;
}
text {
  font: 600 12px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
</style>
