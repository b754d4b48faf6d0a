<script setup lang="ts">
import { computed } from 'vue'
import type { Point } from '@/api/types'
import type { Cornered } from './useCorners'
import type { Viewport } from './useViewport'

/** Handles of the room or duct that is selected: at its corners, and at the middle of each side. */
const props = defineProps<{ shape: Cornered; viewport: Viewport }>()
const emit = defineEmits<{ grab: [shape: Cornered, corner: number, fresh: boolean, event: PointerEvent] }>()

const corners = computed(() => props.shape.points.map((p) => props.viewport.toScreen(p)))
const SHORT_PX = 36
const middles = computed(() => {
  const points = corners.value
  const sides = props.shape.kind === 'space' ? points.length : points.length - 1
  return points.slice(0, sides).flatMap((a, i) => {
    const b = points[(i + 1) % points.length]!
    if (Math.hypot(b[0] - a[0], b[1] - a[1]) < SHORT_PX) return []
    return [{ i, at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as Point }]
  })
})
</script>

<template>
  <g>
    <circle
      v-for="m in middles" :key="`m${m.i}`" :cx="m.at[0]" :cy="m.at[1]" r="4" class="middle" :data-middle="m.i"
      @pointerdown.stop="emit('grab', shape, m.i, true, $event)"
    ><title>Pull out a new corner</title></circle>
    <circle
      v-for="(p, i) in corners" :key="i" :cx="p[0]" :cy="p[1]" r="6" class="handle" :data-corner="i"
      @pointerdown.stop="emit('grab', shape, i, false, $event)"
    ><title>Move this corner; drop it on the next to take it away</title></circle>
  </g>
</template>

<style scoped>
.handle,
.middle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2;
  cursor: grab;
}
.middle {
  stroke-width: 1.5;
  opacity: 0.8;
}
</style>
