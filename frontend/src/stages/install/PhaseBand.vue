<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Step } from '@/api/types'
import type { Stand } from '@/answers/ticks'
import { PHASES } from './phases'

/** All the work as one band: each phase as long as it takes, filled as far as it is done. */
const props = defineProps<{ steps: Step[]; stands: Map<string, Stand> }>()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const ROOM_FOR_NAME_PX = 44
const room = computed(() => Math.max(0, width.value - 2))
const total = computed(() => Math.max(1, props.steps.reduce((sum, s) => sum + s.minutes, 0)))
const pieces = computed(() => {
  let from = 0
  return (Object.keys(PHASES) as Step['phase'][]).flatMap((phase) => {
    const mine = props.steps.filter((s) => s.phase === phase)
    const minutes = mine.reduce((sum, s) => sum + s.minutes, 0)
    if (!minutes) return []
    const done = mine.filter((s) => ['done', 'skipped'].includes(props.stands.get(s.id)?.state ?? '')).reduce((sum, s) => sum + s.minutes, 0)
    const piece = { phase, x: (from / total.value) * room.value + 1, wide: (minutes / total.value) * room.value, done: done / minutes }
    from += minutes
    return [piece]
  })
})
const share = computed(() => Math.round(100 * pieces.value.reduce((sum, p) => sum + p.done * p.wide, 0) / Math.max(1, room.value)))
</script>

<template>
  <div ref="frame" class="band">
    <svg :width="width" height="34" role="img" :aria-label="`${share} % of the work is done`">
      <g v-for="p in pieces" :key="p.phase">
        <rect :x="p.x" y="2" :width="p.wide" height="14" class="all" />
        <rect :x="p.x" y="2" :width="p.wide * p.done" height="14" class="done" />
        <text v-if="p.wide > ROOM_FOR_NAME_PX" :x="p.x + p.wide / 2" y="29" text-anchor="middle">{{ PHASES[p.phase] }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.band {
  margin: 6px 0 4px;
}
svg {
  display: block;
}
.all {
  fill: var(--paper-deep);
  stroke: var(--ink);
}
.done {
  fill: var(--tint-5);
}
text {
  font: 400 11px var(--condensed);
  fill: var(--granite);
}
</style>
