<script setup lang="ts">
import { computed } from 'vue'
import type { BestSoFar, Moved } from '@/answers/useSites'
import type { Device, Point } from '@/api/types'
import MarkShape from './MarkShape.vue'
import type { Viewport } from './useViewport'

/** Places that a search proposes: what is moved and from where, what is new, what goes. */
const props = defineProps<{ moved: Moved[] | null; best: BestSoFar | null; devices: Device[]; floor: string; viewport: Viewport }>()
const was = computed(() => new Map(props.devices.map((d) => [d.id, d.at as Point])))
const marks = computed(() =>
  (props.moved ?? []).filter((m) => m.floor === props.floor && m.what !== 'gone').map((m) => {
    const [x, y] = props.viewport.toScreen(m.at)
    const from = m.what === 'moved' ? was.value.get(m.device) : undefined
    return { ...m, x, y, from: from && props.viewport.toScreen(from) }
  }),
)
/** What leaves this storey or the plan. */
const gone = computed(() =>
  (props.moved ?? []).filter((m) => was.value.has(m.device) && (m.what === 'gone' || m.floor !== props.floor)).map((m) => {
    const [x, y] = props.viewport.toScreen(was.value.get(m.device)!)
    return { key: m.device, x, y }
  }),
)
const dots = computed(() => (props.best?.places ?? []).filter((p) => p.floor === props.floor).map((p) => props.viewport.toScreen(p.at)))
</script>

<template>
  <g class="proposed" data-layer="proposed">
    <circle v-for="([x, y], i) in dots" :key="i" :cx="x" :cy="y" r="7" class="dot" />
    <template v-for="m in marks" :key="m.device">
      <path v-if="m.from" :d="`M${m.from[0]} ${m.from[1]}L${m.x} ${m.y}`" class="way" />
      <circle v-if="m.from" :cx="m.from[0]" :cy="m.from[1]" r="13" class="left" />
    </template>
    <g v-for="m in marks" :key="`at-${m.device}`" :transform="`translate(${m.x} ${m.y})`" :class="m.what" :data-proposed="m.device">
      <circle r="15" class="halo" />
      <MarkShape shape="trig" />
      <text y="26" text-anchor="middle">{{ m.what === 'new' ? `+ ${m.name}` : m.name }}</text>
    </g>
    <path v-for="g in gone" :key="g.key" :d="`M${g.x - 11} ${g.y - 11}l22 22m0 -22l-22 22`" class="cross" />
  </g>
</template>

<style scoped>
.proposed {
  pointer-events: none;
}
.dot {
  fill: color-mix(in srgb, var(--heather) 60%, transparent);
  stroke: var(--paper);
  stroke-width: 2;
}
.way {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.8;
  stroke-dasharray: 6 3;
}
.left {
  fill: color-mix(in srgb, var(--paper) 72%, transparent);
  stroke: var(--heather);
  stroke-dasharray: 3 3;
}
.halo {
  fill: var(--heather-wash);
  stroke: var(--heather);
  stroke-width: 1.5;
}
.stays .halo {
  stroke-dasharray: none;
  fill: var(--paper);
}
text {
  font: 600 11px var(--condensed);
  fill: var(--heather);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.cross {
  stroke: var(--rust);
  stroke-width: 3;
}
</style>
