<script setup lang="ts">
import type { Space } from '@/api/types'
import { linePath } from '@/document/geometry'
import type { RoomName } from './names'
import type { Viewport } from './useViewport'

defineProps<{
  spaces: Space[]
  viewport: Viewport
  chosen: string | null
  verdicts: Map<string, string>
  names: RoomName[]
  plain: boolean
}>()
const emit = defineEmits<{ choose: [id: string, adds: boolean] }>()

const MARK: Record<string, string> = { met: '✓', near: '≈', not_met: '✕', not_needed: '' }
const USE: Record<string, string> = {
  calls: 'calls and video',
  everyday: 'everyday data',
  sensors: 'sensors',
  none: 'not needed',
}
</script>

<template>
  <g>
    <g :transform="viewport.transform.value">
      <path
        v-for="space in spaces" :key="space.id" :d="`${linePath(space.outline)}Z`" class="space"
        :class="{ outdoor: space.outdoor, chosen: chosen === space.id, plain }"
        :data-space="space.id" vector-effect="non-scaling-stroke"
        @click="emit('choose', space.id, $event.shiftKey)"
      />
    </g>
    <g class="labels">
      <template v-for="label in names" :key="label.space.id">
        <text
          :x="label.x" :y="label.y" text-anchor="middle" class="name"
          :data-room="label.space.id"
        >
          <title>{{ label.space.name }}, {{ USE[label.space.use] }}</title>
          <tspan v-for="(line, i) in label.lines" :key="i" :x="label.x" :dy="i ? 13 : 0">{{ line }}</tspan>
          <tspan v-if="MARK[verdicts.get(label.space.id) ?? '']" :x="label.x" dy="14" class="mark" :class="verdicts.get(label.space.id)">
            {{ MARK[verdicts.get(label.space.id) ?? ''] }}
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
