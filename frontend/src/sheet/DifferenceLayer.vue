<script setup lang="ts">
import { computed } from 'vue'
import type { Point, RevisionDifference } from '@/api/types'
import { useCompared } from '@/document/compared'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/** What differs between two states of the plan, on one storey: what came, what went, what was moved. */
const props = defineProps<{ floor: string; viewport: Viewport }>()
const store = useDesign()
const { compared } = useCompared(store)
type Row = RevisionDifference['rows'][number]

const path = (row: Row, points: Row['now']) => {
  const spots = (points ?? []).map((p) => props.viewport.toScreen(p))
  if (spots.length === 1) return ''
  return `M${spots.map((s) => s.join(' ')).join('L')}${row.closed ? 'Z' : ''}`
}
const rows = computed(() =>
  (compared.value?.found.rows ?? []).filter((r) => r.floor === props.floor && ((r.was?.length ?? 0) || (r.now?.length ?? 0))).map((r) => {
    const spot = (points: Row['now']) => (points?.length === 1 ? props.viewport.toScreen(points[0]!) : null)
    const [was, now] = [spot(r.was), spot(r.now)]
    const moved = r.how === 'moved' && was && now ? { from: was, to: now } : null
    return { r, was: path(r, r.was), now: path(r, r.now), wasAt: was, nowAt: now, moved, words: `${r.name || r.kind.replaceAll('_', ' ')}: ${r.how}` }
  }),
)
const arrow = ({ from, to }: { from: Point; to: Point }) => `M${from.join(' ')}L${to.join(' ')}`
</script>

<template>
  <g class="difference" data-layer="difference">
    <g v-for="d in rows" :key="`${d.r.kind}-${d.r.id}`" :class="d.r.how" :data-differs="d.r.id">
      <template v-if="d.r.how !== 'added'">
        <path v-if="d.was" :d="d.was" class="was" /><circle v-else-if="d.wasAt && d.r.how !== 'changed'" :cx="d.wasAt[0]" :cy="d.wasAt[1]" r="12" class="was" />
      </template>
      <template v-if="d.r.how !== 'removed'">
        <path v-if="d.now" :d="d.now" class="now" /><circle v-else-if="d.nowAt" :cx="d.nowAt[0]" :cy="d.nowAt[1]" r="15" class="now" />
      </template>
      <path v-if="d.moved" :d="arrow(d.moved)" class="way" />
      <path v-if="d.r.how === 'removed' && d.wasAt" :d="`M${d.wasAt[0] - 8} ${d.wasAt[1] - 8}l16 16m0 -16l-16 16`" class="was" />
      <title>{{ d.words }}</title>
    </g>
  </g>
</template>

<style scoped>
.difference {
  pointer-events: none;
}
path,
circle {
  fill: none;
}
.was {
  stroke: var(--rust);
  stroke-width: 2.5;
  stroke-dasharray: 5 4;
}
.now {
  stroke: var(--moss);
  stroke-width: 3.5;
  stroke-opacity: 0.85;
}
.changed .now {
  stroke: var(--gorse-ink);
  stroke-dasharray: 2 3;
}
.way {
  stroke: var(--granite);
  stroke-width: 1.5;
}
</style>
