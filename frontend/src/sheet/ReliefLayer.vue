<script setup lang="ts">
import { computed } from 'vue'
import type { Point, Relief, Space, Wall } from '@/api/types'
import { contains, foot } from '@/document/geometry'
import { useFigures } from '@/figures/useFigures'
import { overlaps, type Box } from './boxes'
import { tintOf, written } from './reliefs'
import type { Viewport } from './useViewport'

const props = defineProps<{ relief: Relief; spaces: Space[]; walls: Wall[]; taken: Box[]; viewport: Viewport }>()

const rules = useFigures()
/** The levels that some room is promised: their contours are drawn heavier. */
const targets = computed(() => {
  const promised = rules.figures.value.filter((f) => f.path.startsWith('signal.targets.') && f.path.endsWith('_dbm'))
  return new Set(promised.map((f) => rules.standing(f).value))
})

const TINTS = 6
const CLOSE_PX = 46
const OFF_WALL_PX = 13

function outline(space: Space): string {
  return `M${space.outline.map((p) => `${p[0] * 100} ${p[1] * 100}`).join('L')}Z`
}

const clip = computed(() => props.spaces.map(outline).join(''))
const byUse = computed(() =>
  props.relief.shortfalls.map((s) => ({
    ...s,
    clip: props.spaces.filter((r) => r.use === s.use).map(outline).join(''),
  })),
)

function onWall(label: Point): boolean {
  const reach = OFF_WALL_PX / props.viewport.scale.value
  return props.walls.some((w) => foot(w, label).off < reach)
}

/** Contour figures, each with some room of its own. */
const figures = computed(() => {
  const placed: { x: number; y: number; text: string }[] = []
  for (const contour of props.relief.contours) {
    for (const label of contour.labels) {
      if (!props.spaces.some((s) => contains(s.outline, label)) || onWall(label)) continue
      const [x, y] = props.viewport.toScreen(label)
      const box = { left: x - 14, right: x + 14, top: y - 7, bottom: y + 7 }
      if (props.taken.some((t) => overlaps(t, box))) continue
      if (placed.every((p) => Math.hypot(p.x - x, p.y - y) > CLOSE_PX)) {
        placed.push({ x, y, text: written(props.relief, contour.figure) })
      }
    }
  }
  return placed
})
/** Who serves an area is written in it where it lies clear of other names. */
const named = computed(() =>
  props.relief.serves.flatMap((area) => {
    const [x, y] = props.viewport.toScreen(area.at)
    const wide = area.name.length * 3.6
    const box = { left: x - wide, right: x + wide, top: y - 10, bottom: y + 3 }
    return props.taken.some((t) => overlaps(t, box)) || !props.spaces.some((s) => contains(s.outline, area.at)) ? [] : [{ key: area.device, x, y, name: area.name }]
  }),
)
</script>

<template>
  <g class="relief" data-layer="relief">
    <defs>
      <clipPath id="ground-clip"><path :d="clip" /></clipPath>
      <clipPath v-for="s in byUse" :id="`clip-${s.use}`" :key="s.use"><path :d="s.clip" /></clipPath>
      <pattern id="short" width="40" height="40" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V40" stroke="var(--rust)" stroke-width="7" opacity="0.55" />
      </pattern>
    </defs>
    <g :transform="viewport.transform.value">
      <g transform="scale(0.01)">
        <g clip-path="url(#ground-clip)">
          <path
            v-for="(tint, i) in relief.tints" :key="i" :d="tint" :fill="tintOf(relief, i)"
            fill-rule="evenodd"
          />
          <path
            v-for="(area, i) in relief.serves" :key="area.device" :d="area.path" :style="{ fill: `var(--tint-${i % TINTS})` }"
            fill-rule="evenodd" class="contour" vector-effect="non-scaling-stroke" :data-serves="area.device"
          />
          <path
            v-for="contour in relief.contours" :key="contour.figure" :d="contour.path" class="contour"
            :class="{ target: relief.show === 'level' && targets.has(contour.figure) }"
            vector-effect="non-scaling-stroke"
          />
        </g>
        <g v-for="s in byUse" :key="s.use" :clip-path="`url(#clip-${s.use})`">
          <path :d="s.path" fill="url(#short)" fill-rule="evenodd" :data-shortfall="s.use" />
        </g>
      </g>
    </g>
    <text
      v-for="(figure, i) in figures" :key="i" :x="figure.x" :y="figure.y + 3" text-anchor="middle"
      class="figure-label"
    >{{ figure.text }}</text>
    <text v-for="n in named" :key="n.key" :x="n.x" :y="n.y" text-anchor="middle" class="figure-label">{{ n.name }}</text>
  </g>
</template>

<style scoped>
.relief {
  pointer-events: none;
}
.contour {
  fill: none;
  stroke: var(--granite);
  stroke-width: 0.8;
}
.contour.target {
  stroke: var(--ink);
  stroke-width: 1.3;
}
.figure-label {
  font: 500 10px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--tint-2);
  stroke-width: 3px;
}
</style>
