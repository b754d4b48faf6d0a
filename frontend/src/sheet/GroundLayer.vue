<script setup lang="ts">
import { computed } from 'vue'
import type { Point, Space } from '@/api/types'
import type { Viewport } from './useViewport'
import { centre } from '@/design/geometry'

const props = defineProps<{
  spaces: Space[]
  viewport: Viewport
  chosen: string | null
  verdicts: Map<string, string>
  marks: Point[]
  plain: boolean
}>()
const emit = defineEmits<{ choose: [id: string] }>()

const MARK: Record<string, string> = { met: '✓', near: '≈', not_met: '✕', not_needed: '' }
const USE: Record<string, string> = {
  calls: 'calls and video',
  everyday: 'everyday data',
  sensors: 'sensors',
  none: 'not needed',
}
const LETTER_PX = 6.3

function path(space: Space): string {
  return `M${space.outline.map((p) => p.join(' ')).join('L')}Z`
}

function widthOf(space: Space): number {
  const xs = space.outline.map((p) => p[0])
  return (Math.max(...xs) - Math.min(...xs)) * props.viewport.scale.value
}

function heightOf(space: Space): number {
  const ys = space.outline.map((p) => p[1])
  return (Math.max(...ys) - Math.min(...ys)) * props.viewport.scale.value
}

/** The spot for a name nearest the middle of its room where no mark stands, if there is one. */
function clear(x: number, middle: number, width: number, height: number): Point | null {
  const marks = props.marks.map((m) => props.viewport.toScreen(m))
  const up = Math.max(0, height / 2 - 14)
  const aside = Math.max(0, width / 2 - 34)
  for (const dx of [0, -70, 70, -140, 140]) {
    for (const dy of [0, -26, 30, -44, 48, -62, 66]) {
      if (Math.abs(dy) > up || Math.abs(dx) > aside) continue
      const [px, py] = [x + dx, middle + dy]
      if (marks.every((m) => Math.abs(m[0] - px) > 46 || py < m[1] - 16 || py > m[1] + 40)) return [px, py]
    }
  }
  return null
}

/** A name that fits its room: whole, over two lines, or cut with a mark. */
function lines(name: string, px: number): string[] {
  const fits = Math.max(2, Math.floor((px - 6) / LETTER_PX))
  if (name.length <= fits) return [name]
  const words = name.split(' ')
  if (words.length > 1 && words.every((w) => w.length <= fits)) {
    const half = Math.ceil(words.length / 2)
    const both = [words.slice(0, half).join(' '), words.slice(half).join(' ')]
    if (both.every((line) => line.length <= fits)) return both
  }
  return [`${name.slice(0, Math.max(1, fits - 1))}…`]
}

const labels = computed(() =>
  props.spaces.flatMap((space) => {
    const [middleX, middleY] = props.viewport.toScreen(centre(space.outline))
    const px = widthOf(space)
    const spot = clear(middleX, middleY, px, heightOf(space))
    if (!spot) return []
    const [x, y] = spot
    return { space, x, y, px, lines: lines(space.name, px), verdict: props.verdicts.get(space.id) ?? '' }
  }),
)
</script>

<template>
  <g>
    <g :transform="viewport.transform.value">
      <path
        v-for="space in spaces" :key="space.id" :d="path(space)" class="space"
        :class="{ outdoor: space.outdoor, chosen: chosen === space.id, plain }"
        :data-space="space.id" vector-effect="non-scaling-stroke"
        @click="emit('choose', space.id)"
      />
    </g>
    <g class="labels">
      <template v-for="label in labels" :key="label.space.id">
        <text
          v-if="label.px > 24" :x="label.x" :y="label.y" text-anchor="middle" class="name"
          :data-room="label.space.id"
        >
          <title>{{ label.space.name }}, {{ USE[label.space.use] }}</title>
          <tspan v-for="(line, i) in label.lines" :key="i" :x="label.x" :dy="i ? 13 : 0">{{ line }}</tspan>
          <tspan v-if="MARK[label.verdict]" :x="label.x" dy="14" class="mark" :class="label.verdict">
            {{ MARK[label.verdict] }}
          </tspan>
        </text>
      </template>
    </g>
  </g>
</template>

<style scoped>
.space {
  fill: var(--paper);
  stroke: transparent;
  cursor: default;
}
.space.plain {
  fill: transparent;
}
.space.outdoor {
  stroke: var(--granite-mid);
  stroke-dasharray: 4 3;
}
.space.chosen {
  stroke: var(--heather);
  stroke-width: 2;
  fill: color-mix(in srgb, var(--heather) 9%, transparent);
}
.labels {
  pointer-events: none;
}
.name {
  font: 600 12px var(--condensed);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.mark {
  font: 600 12px var(--sans);
}
.mark.met {
  fill: var(--moss);
}
.mark.near {
  fill: var(--gorse-ink);
}
.mark.not_met {
  fill: var(--rust);
}
</style>
