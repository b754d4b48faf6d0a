<script setup lang="ts">
import { computed } from 'vue'
import type { Duct } from '@/api/types'
import { nearestStorey } from '@/document/edits'
import { linePath } from '@/document/geometry'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/** What lies about this storey's building: the other buildings, trees, and the ducts in the ground. */
const props = defineProps<{ floor: string; ducts: Duct[]; viewport: Viewport; chosen: string | null; active: boolean }>()
const emit = defineEmits<{ choose: [id: string] }>()
const store = useDesign()

/** Of each other building the storey nearest in height to this one. */
const neighbours = computed(() => {
  const here = store.find('floor', props.floor)
  if (!here) return []
  return store.all('building').flatMap((building) => {
    const storey = nearestStorey(store.all('floor').filter((f) => f.building === building.id), here)
    const spaces = store.all('space').filter((s) => s.floor === storey?.id && !s.outdoor)
    if (building.id === here.building || !spaces.length) return []
    const points = spaces.flatMap((s) => s.outline)
    const xs = points.map((p) => p[0])
    const [x, y] = props.viewport.toScreen([(Math.min(...xs) + Math.max(...xs)) / 2, Math.max(...points.map((p) => p[1]))])
    return [{ id: building.id, name: building.name, path: spaces.map((s) => `${linePath(s.outline)}Z`).join(''), x, y: y - 7 }]
  })
})

const lines = computed(() =>
  props.ducts.map((duct) => ({ duct, path: linePath(duct.path) })),
)
</script>

<template>
  <g data-layer="yard" :class="{ active }">
    <g :transform="viewport.transform.value">
      <path v-for="g in store.all('grove')" :key="g.id" :d="`${linePath(g.outline)}Z`" class="trees" vector-effect="non-scaling-stroke" :data-trees="g.id"><title>{{ g.name }}</title></path>
      <path v-for="n in neighbours" :key="n.id" :d="n.path" class="building" vector-effect="non-scaling-stroke" />
      <template v-for="line in lines" :key="line.duct.id">
        <path :d="line.path" class="duct" :class="{ chosen: line.duct.id === chosen }" vector-effect="non-scaling-stroke" />
        <path
          :d="line.path" class="reach" vector-effect="non-scaling-stroke" :data-duct="line.duct.id"
          @click.stop="active && emit('choose', line.duct.id)"
        ><title>{{ line.duct.name }}</title></path>
      </template>
    </g>
    <text v-for="n in neighbours" :key="n.id" :x="n.x" :y="n.y" text-anchor="middle" class="name">{{ n.name }}</text>
  </g>
</template>

<style scoped>
g {
  pointer-events: none;
}
.building {
  fill: color-mix(in srgb, var(--paper) 55%, transparent);
  stroke: var(--granite-mid);
  stroke-width: 1.2;
}
.trees {
  fill: var(--moss);
  fill-opacity: 0.14;
  stroke: var(--moss);
  stroke-width: 1.2;
  stroke-dasharray: 6 3;
}
.name {
  font: 600 12px var(--condensed);
  fill: var(--granite);
}
.duct {
  fill: none;
  stroke: var(--granite);
  stroke-width: 4;
  stroke-dasharray: 1 5;
}
.duct.chosen {
  stroke: var(--heather);
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 12;
}
.active .reach {
  pointer-events: stroke;
  cursor: pointer;
}
</style>
