<script setup lang="ts">
import { computed } from 'vue'
import NumberField from '@/controls/NumberField.vue'
import type { SectionView } from '@/api/types'
import { useDesign } from '@/document/store'
import type { useSectionHand } from './useSectionHand'

/** Where storeys stand and how high they are: lines to drag on the section, the figures to type beside it. */
const props = defineProps<{
  typed?: boolean
  storeys: SectionView['storeys']
  floor: string
  x: (at_m: number) => number
  y: (z_m: number) => number
  hand: ReturnType<typeof useSectionHand>
}>()
const store = useDesign()
const emit = defineEmits<{ floor: [id: string]; change: [id: string, to: { elevation_m?: number; ceiling_height_m?: number }] }>()

const rows = computed(() =>
  props.storeys.map((storey) => {
    const held = props.hand.held.value?.storey.floor === storey.floor ? props.hand.held.value : null
    const lifted = held?.what === 'floor' ? held.by_m : 0
    const higher = held?.what === 'ceiling' ? held.by_m : 0
    const along = held?.what === 'along' ? held.by_m : 0
    const foot = storey.elevation_m + lifted
    return { storey, foot: props.y(foot), top: props.y(foot + storey.ceiling_m + higher), from: props.x(storey.from_m + along), to: props.x(storey.to_m + along), held }
  }),
)
/** The storey that is shown on the sheet: its figures are typed beside the drawing. */
const shown = computed(() => rows.value.find((r) => r.storey.floor === props.floor))
/** As it was said, and not as it is read where storeys stand in one another. */
const said = computed(() => shown.value && store.find('floor', shown.value.storey.floor))
const TOP_PX = 6
</script>

<template>
  <div v-if="typed && said" class="typed" :style="{ top: `${TOP_PX}px` }">
    <b>{{ said.name }}</b>
    <NumberField label="Floor at" :value="said.elevation_m" :min="-50" :max="200" @change="emit('change', said.id, { elevation_m: $event })" />
    <NumberField label="Ceiling" :value="said.ceiling_height_m" :min="1.6" :max="30" @change="emit('change', said.id, { ceiling_height_m: $event })" />
  </div>
  <g v-else-if="!typed">
    <g v-for="r in rows" :key="r.storey.floor" :class="{ held: r.held }">
      <rect v-if="r.held" :x="r.from" :y="r.top" :width="r.to - r.from" :height="Math.max(0, r.foot - r.top)" class="ghost" />
      <g v-for="line in (['ceiling', 'floor'] as const)" :key="line" class="line" :data-height="`${line}-${r.storey.floor}`" @pointerdown.stop="hand.grab(r.storey, line, $event)">
        <path :d="`M${r.from} ${line === 'floor' ? r.foot : r.top}H${r.to}`" class="hit" />
        <path :d="`M${r.to + 3} ${line === 'floor' ? r.foot : r.top}h9m-4.5 -5v10`" class="grip" />
        <title>{{ line === 'floor' ? `Drag ${r.storey.name} up or down, with all above it` : `Drag the ceiling of ${r.storey.name}` }}</title>
      </g>
      <g class="along" :transform="`translate(${r.to + 26} ${(r.foot + r.top) / 2})`" :data-along="r.storey.floor" @pointerdown.stop="hand.grab(r.storey, 'along', $event)">
        <circle r="22" class="reach" /><circle r="9" /><path d="M-5 0H5M-5 0l2.5 -2.5M-5 0l2.5 2.5M5 0l-2.5 -2.5M5 0l-2.5 2.5" />
        <title>Drag {{ r.storey.name }} along the cut, over another storey</title>
      </g>
    </g>
  </g>
</template>

<style scoped>
.typed {
  position: absolute;
  left: 8px;
  width: 100px;
  display: grid;
  gap: 3px;
  font-size: 12px;
}
.typed :deep(label) {
  display: grid;
  gap: 1px;
  font: 400 11px/1.2 var(--condensed);
  color: var(--granite);
}
b {
  overflow-wrap: anywhere;
  line-height: 1.2;
}
.hit {
  stroke: transparent;
  stroke-width: 10px;
  cursor: ns-resize;
}
.grip {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.6;
  cursor: ns-resize;
}
.along {
  cursor: ew-resize;
}
.along circle {
  fill: var(--paper);
  stroke: var(--heather);
}
.along path {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.3;
}
.along .reach {
  fill: transparent;
  stroke: none;
}
@media (pointer: coarse) {
  .hit {
    stroke-width: 34px;
  }
}
.ghost {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
  pointer-events: none;
}
</style>
