<script setup lang="ts">
import { computed } from 'vue'
import type { Point, SiteSketch } from '@/api/types'
import { boundsOf } from '@/document/geometry'

/** A site's ground floors as a small drawing, north up. */
const props = defineProps<{ site: Pick<SiteSketch, 'rooms' | 'yards' | 'marks'> }>()
const WIDTH = 320
const HEIGHT = 190
const EDGE = 16

const fit = computed(() => {
  const points = [...props.site.rooms, ...props.site.yards].flat() as Point[]
  const [west, south, east, north] = boundsOf(points)
  const [wide, deep] = [east - west, north - south]
  const scale = Math.min((WIDTH - 2 * EDGE) / wide, (HEIGHT - 2 * EDGE) / deep)
  const left = (WIDTH - wide * scale) / 2
  const foot = (HEIGHT + deep * scale) / 2
  return (p: Point): Point => [left + (p[0] - west) * scale, foot - (p[1] - south) * scale]
})
const path = (outline: readonly Point[]) => `M${outline.map((p) => fit.value(p).map((v) => v.toFixed(1)).join(' ')).join('L')}Z`
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" class="sketch" aria-hidden="true">
    <path v-for="(yard, i) in site.yards" :key="`y${i}`" :d="path(yard as Point[])" class="yard" />
    <path v-for="(room, i) in site.rooms" :key="i" :d="path(room as Point[])" class="room" />
    <circle v-for="(mark, i) in site.marks" :key="`m${i}`" :cx="fit(mark as Point)[0]" :cy="fit(mark as Point)[1]" r="2.2" class="mark" />
  </svg>
</template>

<style scoped>
.sketch {
  display: block;
  width: 100%;
  background: var(--paper-deep);
}
.room {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.yard {
  fill: none;
  stroke: var(--granite);
  stroke-dasharray: 3 3;
}
.mark {
  fill: var(--heather);
}
</style>
