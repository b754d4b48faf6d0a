<script setup lang="ts">
import { computed } from 'vue'
import { SNAP_WORDS, type Snap } from '@/document/snaps'
import type { Viewport } from './useViewport'

/** What the pointer is snapped to: a mark at the spot, its name, and the line that leads there. */
const props = defineProps<{ snap: Snap; viewport: Viewport }>()
const at = computed(() => props.viewport.toScreen(props.snap.at))
const guide = computed(() => props.snap.guide?.map((p) => props.viewport.toScreen(p)))
const R = 7
</script>

<template>
  <g v-if="snap.to !== 'grid'" class="snap" :data-snap="snap.to">
    <line v-if="guide" :x1="guide[0]![0]" :y1="guide[0]![1]" :x2="at[0]" :y2="at[1]" />
    <g :transform="`translate(${at[0]} ${at[1]})`">
      <rect v-if="snap.to === 'end'" :x="-R" :y="-R" :width="2 * R" :height="2 * R" />
      <path v-else-if="snap.to === 'middle'" :d="`M${-R} ${R - 1}L0 ${-R}L${R} ${R - 1}Z`" />
      <path v-else-if="snap.to === 'crossing'" :d="`M${-R} ${-R}L${R} ${R}M${-R} ${R}L${R} ${-R}`" />
      <path v-else-if="snap.to === 'wall'" :d="`M${-R} 0H${R}M0 0V${-R}`" />
      <circle v-else :r="R - 2" />
      <text :x="R + 5" :y="R + 12">{{ SNAP_WORDS[snap.to] }}</text>
    </g>
  </g>
</template>

<style scoped>
.snap {
  pointer-events: none;
  fill: none;
  stroke: var(--tarn);
  stroke-width: 1.8;
}
line {
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
text {
  font: 500 11px var(--condensed);
  fill: var(--tarn);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
</style>
