<script setup lang="ts">
import { computed } from 'vue'
import type { Point } from '@/api/types'
import { boundsOf } from '@/document/geometry'
import { spotsOf } from '@/document/picks'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/** What is chosen together: each thing marked, and a frame about all of it to take hold of. */
const props = defineProps<{ floor: string; viewport: Viewport }>()
const emit = defineEmits<{ grab: [event: PointerEvent] }>()
const store = useDesign()
const PAD_PX = 14

const drawn = computed(() =>
  store.picks.flatMap((p) => {
    const element = store.drawn(p.kind).find((e) => e.id === p.id)
    if (!element || ('floor' in element && element.floor !== props.floor)) return []
    const spots = spotsOf(element).map((s) => props.viewport.toScreen(s))
    return spots.length ? [{ key: `${p.kind} ${p.id}`, spots, closed: 'outline' in element }] : []
  }),
)
const path = (spots: Point[], closed: boolean) => `M${spots.map((s) => s.join(' ')).join('L')}${closed ? 'Z' : ''}`
const frame = computed(() => {
  const spots = drawn.value.flatMap((d) => d.spots)
  if (!spots.length) return null
  const [west, south, east, north] = boundsOf(spots)
  return { x: west - PAD_PX, y: south - PAD_PX, width: east - west + 2 * PAD_PX, height: north - south + 2 * PAD_PX }
})
</script>

<template>
  <g class="picks">
    <template v-for="d in drawn" :key="d.key">
      <circle v-if="d.spots.length === 1" :cx="d.spots[0]![0]" :cy="d.spots[0]![1]" r="15" class="one" :data-pick="d.key" />
      <path v-else :d="path(d.spots, d.closed)" class="one" :data-pick="d.key" />
    </template>
    <template v-if="frame">
      <rect v-bind="frame" class="frame" />
      <rect v-bind="frame" class="edge" data-picks @pointerdown.stop="emit('grab', $event)"><title>Drag: all of it goes along</title></rect>
      <g :transform="`translate(${frame.x + frame.width / 2} ${frame.y})`" class="handle" data-picks-handle @pointerdown.stop="emit('grab', $event)">
        <circle r="11" /><path d="M-6 0H6M0 -6V6M-6 0l2 -2M-6 0l2 2M6 0l-2 -2M6 0l-2 2M0 -6l-2 2M0 -6l2 2M0 6l-2 -2M0 6l2 -2" />
      </g>
    </template>
  </g>
</template>

<style scoped>
.picks {
  pointer-events: none;
  fill: none;
}
.one {
  stroke: var(--heather);
  stroke-width: 3;
  stroke-opacity: 0.75;
}
.frame {
  stroke: var(--heather);
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.edge {
  pointer-events: stroke;
  stroke: transparent;
  stroke-width: 16px;
  cursor: move;
}
.handle {
  pointer-events: auto;
  cursor: move;
}
.handle circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 1.5;
}
.handle path {
  stroke: var(--heather);
  stroke-width: 1.4;
}
</style>
