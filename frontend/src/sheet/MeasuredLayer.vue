<script setup lang="ts">
import { computed } from 'vue'
import type { Point, Residual } from '@/api/types'
import type { Viewport } from './useViewport'

/** What was measured at each spot over or under what is planned, all access points or one. */
const props = defineProps<{ rows: Residual[]; fitted: boolean; device: string | null; floor: string; viewport: Viewport }>()
const NAMED_PX_PER_M = 14
const EDGES = [-12, -6, -2, 2, 6, 12]
const spots = computed(() => {
  const by = new Map<string, { at: Point; sum: number; count: number }>()
  for (const r of props.rows) {
    if (r.floor !== props.floor || (props.device && r.device !== props.device)) continue
    const row = by.get(r.at.join()) ?? { at: r.at as Point, sum: 0, count: 0 }
    row.sum += r.dbm - (props.fitted ? r.fitted_dbm : r.planned_dbm)
    row.count++
    by.set(r.at.join(), row)
  }
  return [...by.entries()].map(([key, row]) => {
    const [x, y] = props.viewport.toScreen(row.at)
    const db = row.sum / row.count
    return { key, x, y, db, tint: EDGES.filter((e) => db > e).length }
  })
})
const named = computed(() => props.viewport.scale.value >= NAMED_PX_PER_M)
const signed = (db: number) => `${db > 0 ? '+' : '−'}${Math.abs(db).toFixed(0)}`
</script>

<template>
  <g class="measured" data-layer="measured">
    <g v-for="s in spots" :key="s.key" :transform="`translate(${s.x} ${s.y})`">
      <circle :r="named ? 10 : 6" :style="{ fill: `var(--change-${s.tint})` }" />
      <text v-if="named" y="4" text-anchor="middle">{{ signed(s.db) }}</text>
    </g>
  </g>
</template>

<style scoped>
.measured {
  pointer-events: none;
}
circle {
  stroke: var(--ink);
  stroke-width: 1.2;
}
text {
  font: 600 10.5px var(--mono);
  fill: var(--ink);
}
</style>
