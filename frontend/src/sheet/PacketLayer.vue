<script setup lang="ts">
import { computed } from 'vue'
import { linePath } from '@/document/geometry'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/** The cables that a packet goes over on this storey, over all others. */
const props = defineProps<{ links: string[]; passes: boolean; floor: string; viewport: Viewport }>()
const store = useDesign()
const paths = computed(() =>
  [...(store.shown?.cable.runs ?? []), ...(store.shown?.cable.uplinks ?? [])]
    .filter((link) => props.links.includes(link.id))
    .flatMap((link) => link.legs.filter((leg) => leg.floor === props.floor && leg.points.length > 1 && leg.kind !== 'riser').map((leg) => linePath(leg.points))),
)
</script>

<template>
  <g class="packet" :class="{ stopped: !passes }" data-layer="packet" :transform="viewport.transform.value">
    <path v-for="(d, k) in paths" :key="k" :d="d" vector-effect="non-scaling-stroke" />
  </g>
</template>

<style scoped>
.packet {
  pointer-events: none;
}
.packet path {
  fill: none;
  stroke: var(--heather);
  stroke-width: 5;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.packet.stopped path {
  stroke: var(--rust);
  stroke-dasharray: 2 9;
}
</style>
