<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { distance } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { useSeenWalls, type SeenWall } from './seenWalls'
import type { Viewport } from './useViewport'

/** Walls seen on the client's plan: a press takes one, its cross wipes it; what is doubtful says why. */
const props = defineProps<{ part: 'lines' | 'band'; floor: string; viewport: Viewport }>()
const store = useDesign()
const { walls, sure, take, wipe, wipeAll } = useSeenWalls(store, () => props.floor)

const LEAST_PX = 40
const drawn = computed(() =>
  walls.value.map((wall) => {
    const [a, b] = [props.viewport.toScreen(wall.a), props.viewport.toScreen(wall.b)]
    const size = distance(a, b)
    const at = (m: number) => {
      const share = m / distance(wall.a, wall.b)
      return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share].join(' ')
    }
    return {
      wall, a, b, mid: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], wide: Math.max(5, wall.thick_m * props.viewport.scale.value), room: size > LEAST_PX,
      openings: wall.openings.map((o) => ({ kind: o.kind, path: `M${at(o.offset_m)}L${at(o.offset_m + o.width_m)}` })),
      words: `${wall.outer ? 'Outer wall' : 'Wall'} of ${length(distance(wall.a, wall.b), 2)}${wall.openings.length ? `, ${wall.openings.map((o) => o.kind).join(', ')}` : ''}${wall.why ? `: not sure, ${wall.why}` : ''}`,
    }
  }),
)
const doubted = computed(() => walls.value.length - sure.value.length)
const press = (w: SeenWall) => take([w])
</script>

<template>
  <g v-if="part === 'lines'" data-layer="seen">
    <g v-for="d in drawn" :key="d.wall.id" class="seen" :class="{ doubted: d.wall.why }">
      <path
        :d="`M${d.a.join(' ')}L${d.b.join(' ')}`" class="wall" :style="{ strokeWidth: `${d.wide}px` }" tabindex="0" role="button" :aria-label="`Take: ${d.words}`"
        :data-seen="d.wall.id" @pointerdown.stop @click.stop="press(d.wall)" @keydown.enter.stop="press(d.wall)" @keydown.delete.stop="wipe(d.wall)"
      ><title>{{ d.words }}</title></path>
      <path v-for="(o, i) in d.openings" :key="i" :d="o.path" class="opening" :class="o.kind" />
      <g v-if="d.room" class="cross" :transform="`translate(${d.mid.join(' ')})`" :aria-label="`Wipe: ${d.words}`" role="button" @pointerdown.stop @click.stop="wipe(d.wall)">
        <circle r="8" /><path d="M-3 -3L3 3M3 -3L-3 3" />
      </g>
      <text v-if="d.wall.why" :x="d.mid[0]! + 12" :y="d.mid[1]! - 9">?</text>
    </g>
  </g>
  <div v-else-if="walls.length" class="band" role="group" aria-label="Walls seen on the client’s plan" data-testid="seen-walls">
    <p>{{ walls.length }} walls are seen on the client’s plan<template v-if="doubted">, {{ doubted }} of them doubtful (?)</template>. A press takes one, its cross wipes it. Look at each: nothing is drawn before you take it.</p>
    <Button v-if="sure.length" :label="doubted ? `Take the ${sure.length} that are sure` : `Take all ${sure.length}`" size="small" @click="take(sure)" />
    <Button v-if="doubted" :label="`Take all ${walls.length}`" size="small" outlined @click="take(walls)" />
    <Button label="Wipe the rest" size="small" text @click="wipeAll()" />
  </div>
</template>

<style scoped>
.seen .wall {
  fill: none;
  stroke: var(--heather);
  stroke-opacity: 0.45;
  cursor: pointer;
  outline: none;
}
.seen .wall:hover,
.seen .wall:focus-visible {
  stroke-opacity: 0.9;
}
.doubted .wall {
  stroke: var(--gorse-ink);
  stroke-dasharray: 8 5;
}
.opening {
  pointer-events: none;
  fill: none;
  stroke: var(--paper);
  stroke-width: 4;
}
.opening.window {
  stroke: var(--tarn);
}
.cross {
  cursor: pointer;
}
.cross circle {
  fill: var(--paper);
  stroke: var(--granite-mid);
}
.cross path {
  stroke: var(--rust);
  stroke-width: 2;
}
text {
  font: 700 14px var(--condensed);
  fill: var(--gorse-ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.band {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 10px;
  padding: 6px 12px;
  border-top: 2px solid var(--heather);
  background: var(--heather-wash);
  font: 500 13px/1.3 var(--condensed);
}
p {
  margin: 0;
  flex: 1;
  min-width: 220px;
}
@media (pointer: coarse) {
  .cross {
    scale: 1.8;
  }
}
</style>
