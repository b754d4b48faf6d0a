<script setup lang="ts">
import { computed } from 'vue'
import type { Viewport } from './useViewport'
import { drawnCut } from './cut'

/** Where the section cuts through the sheet: looked at from the side that its marks point away from. */
const props = defineProps<{ viewport: Viewport }>()
const line = computed(() => {
  if (!drawnCut.value) return null
  const [a, b] = [drawnCut.value.a, drawnCut.value.b].map((p) => props.viewport.toScreen(p))
  return { a: a!, b: b! }
})
</script>

<template>
  <g v-if="line" class="cut" data-cut>
    <line :x1="line.a[0]" :y1="line.a[1]" :x2="line.b[0]" :y2="line.b[1]" />
    <g v-for="(p, i) in [line.a, line.b]" :key="i" :transform="`translate(${p[0]} ${p[1]})`">
      <circle r="9" /><text y="4" text-anchor="middle">{{ i ? 'B' : 'A' }}</text>
    </g>
  </g>
</template>

<style scoped>
.cut {
  pointer-events: none;
}
line {
  stroke: var(--tarn);
  stroke-width: 1.4;
  stroke-dasharray: 14 4 3 4;
}
circle {
  fill: var(--paper);
  stroke: var(--tarn);
  stroke-width: 1.4;
}
text {
  font: 600 11px var(--condensed);
  fill: var(--tarn);
}
</style>
