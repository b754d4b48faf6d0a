<script setup lang="ts">
import { computed } from 'vue'
import type { Device, MeshLink, Point } from '@/api/types'
import type { Viewport } from './useViewport'

/** Back-haul over the air: from each access point without a cable to its parent, the second parent thin. */
const props = defineProps<{ links: MeshLink[]; devices: Device[]; viewport: Viewport }>()
const at = computed(() => new Map(props.devices.map((d) => [d.id, props.viewport.toScreen(d.at as Point)])))
const WIDEST_PX = 7
const said = (l: MeshLink) => {
  if (!l.parent) return 'no parent'
  const level = `${l.level_dbm?.toFixed(0).replace('-', '−')} dBm`
  return at.value.has(l.parent) ? `${level}, ${l.rate_mbps.toFixed(0)} Mb/s` : `${l.parent_name}: ${level}`
}
const lines = computed(() =>
  props.links.flatMap((l) => {
    const [from, to, spare] = [at.value.get(l.device), at.value.get(l.parent ?? ''), at.value.get(l.second ?? '')]
    if (!from) return []
    const wide = Math.max(1.5, Math.min(WIDEST_PX, l.rate_mbps / 120))
    return [{ ...l, from, to, spare, wide, x: to ? (from[0] + to[0]) / 2 : from[0], y: to ? (from[1] + to[1]) / 2 : from[1] }]
  }),
)
</script>

<template>
  <g class="mesh" data-layer="mesh">
    <template v-for="l in lines" :key="l.device">
      <path v-if="l.spare" :d="`M${l.from[0]} ${l.from[1]}L${l.spare[0]} ${l.spare[1]}`" class="spare" />
      <path v-if="l.to" :d="`M${l.from[0]} ${l.from[1]}L${l.to[0]} ${l.to[1]}`" class="link" :stroke-width="l.wide" :data-mesh="l.device" />
      <circle v-if="!l.parent" :cx="l.from[0]" :cy="l.from[1]" r="17" class="lost" />
      <circle v-if="l.parent && !l.to" :cx="l.from[0]" :cy="l.from[1]" r="16" class="away" />
      <text :x="l.x" :y="l.to ? l.y - 6 : l.y - 22" text-anchor="middle">{{ said(l) }}</text>
    </template>
  </g>
</template>

<style scoped>
.mesh {
  pointer-events: none;
}
.link {
  fill: none;
  stroke: var(--heather);
  stroke-linecap: round;
  stroke-dasharray: 1 9;
}
.spare {
  fill: none;
  stroke: var(--granite);
  stroke-width: 1.5;
  stroke-dasharray: 2 6;
}
.away {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2;
  stroke-dasharray: 2 4;
}
.lost {
  fill: none;
  stroke: var(--rust);
  stroke-width: 2.5;
}
text {
  font: 600 12px var(--condensed);
  fill: var(--heather);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
