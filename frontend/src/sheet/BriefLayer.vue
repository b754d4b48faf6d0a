<script setup lang="ts">
import { computed } from 'vue'
import type { Kind } from '@/api/types'
import { centre, linePath } from '@/document/geometry'
import { useDesign } from '@/document/store'
import type { MarkName } from './names'
import type { Viewport } from './useViewport'

/** What the visit brought home: complaints, the line, zones, cables that are there. */
type Movable = 'pain' | 'line_entry'
const props = defineProps<{ floor: string; viewport: Viewport; chosen: string | null; names: Map<string, MarkName> }>()
const emit = defineEmits<{ choose: [kind: Kind, id: string]; grab: [kind: Movable, id: string, event: PointerEvent] }>()
const store = useDesign()
const outcome = computed(() => new Map((store.shown?.brief.pains ?? []).map((p) => [p.pain, p.outcome])))
const shown = (id: string, at: readonly number[]) => props.viewport.toScreen(store.ghost?.id === id ? store.ghost.at : at)

const pains = computed(() =>
  store.all('pain').flatMap((pain, k) => {
    if (pain.floor !== props.floor) return []
    const [x, y] = shown(pain.id, pain.at)
    return [{ id: pain.id, number: k + 1, x, y, outcome: outcome.value.get(pain.id) ?? 'not_addressed' }]
  }),
)
const entries = computed(() =>
  store.all('line_entry').filter((e) => e.floor === props.floor).map((e) => ({ id: e.id, spot: shown(e.id, e.at) })),
)
const zones = computed(() =>
  store.all('zone').filter((z) => z.floor === props.floor).map((z) => {
    const [x, y] = props.viewport.toScreen(centre(z.outline))
    return { ...z, path: `${linePath(z.outline.map((p) => props.viewport.toScreen(p)))}Z`, x, y, label: props.names.get(z.id) }
  }),
)
const cables = computed(() => store.all('old_cable').filter((c) => c.floor === props.floor))
</script>

<template>
  <g data-layer="brief">
    <defs>
      <pattern id="no-drilling" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7M0 0H7" class="hatch" />
      </pattern>
    </defs>
    <path
      v-for="z in zones" :key="z.id" :d="z.path" class="zone" :class="[z.kind, { chosen: chosen === z.id }]" :data-zone="z.id"
      @click.stop="emit('choose', 'zone', z.id)"
    />
    <g :transform="viewport.transform.value">
      <line
        v-for="c in cables" :key="c.id" :x1="c.a[0]" :y1="c.a[1]" :x2="c.b[0]" :y2="c.b[1]" class="cable" :class="[c.state, { chosen: chosen === c.id }]"
        :data-old-cable="c.id" vector-effect="non-scaling-stroke" @click.stop="emit('choose', 'old_cable', c.id)"
      />
    </g>
    <template v-for="z in zones" :key="z.id">
      <text v-if="z.label" :x="z.x + z.label.dx" :y="z.y + z.label.dy" :text-anchor="z.label.anchor" class="zone-name" :class="z.kind">{{ z.name }}</text>
    </template>
    <g v-for="e in entries" :key="e.id" class="entry" :class="{ chosen: chosen === e.id }" :transform="`translate(${e.spot[0]} ${e.spot[1]})`" :data-entry="e.id" @pointerdown="emit('grab', 'line_entry', e.id, $event)">
      <circle r="14" class="halo" />
      <path d="M-13 0H3M-2 -5L4 0L-2 5M7 -8V8" />
    </g>
    <g
      v-for="p in pains" :key="p.id" class="pain" :class="[p.outcome, { chosen: chosen === p.id }]" :transform="`translate(${p.x} ${p.y})`"
      :data-pain="p.id" @pointerdown="emit('grab', 'pain', p.id, $event)"
    >
      <path d="M0 -12L12 0L0 12L-12 0Z" />
      <text y="4" text-anchor="middle">{{ p.number }}</text>
      <path v-if="p.outcome === 'mended'" d="M6 -13l3 3l6 -7" class="tick" />
    </g>
  </g>
</template>

<style scoped>
.zone {
  cursor: pointer;
  stroke-width: 1.4;
}
.zone.later {
  fill: color-mix(in srgb, var(--tarn) 7%, transparent);
  stroke: var(--tarn);
  stroke-dasharray: 7 5;
}
.zone.no_drilling {
  fill: url(#no-drilling);
  stroke: var(--rust);
}
.hatch {
  stroke: var(--rust);
  stroke-width: 0.7;
  opacity: 0.6;
}
.chosen.zone,
.chosen.cable {
  stroke: var(--heather);
  stroke-width: 2.5;
}
.zone-name {
  font: 600 11px var(--condensed);
  fill: var(--tarn);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  pointer-events: none;
}
.zone-name.no_drilling {
  fill: var(--rust);
}
.cable {
  stroke: var(--granite);
  stroke-width: 2.5;
  stroke-dasharray: 10 3 2 3;
  cursor: pointer;
}
.cable.retire {
  opacity: 0.45;
}
.entry path {
  fill: none;
  stroke: var(--tarn);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.entry,
.pain {
  cursor: grab;
}
.halo {
  fill: transparent;
}
.entry.chosen .halo {
  fill: var(--paper);
  stroke: var(--heather);
}
.pain path {
  fill: var(--paper);
  stroke: var(--rust);
  stroke-width: 2;
}
.pain text {
  font: 600 12px var(--mono);
  fill: var(--rust);
}
.pain.better path {
  stroke: var(--gorse-ink);
}
.pain.better text {
  fill: var(--gorse-ink);
}
.pain.mended path {
  stroke: var(--moss);
}
.pain.mended text {
  fill: var(--moss);
}
.pain .tick {
  fill: none;
  stroke-width: 2.6;
}
.pain.chosen path:first-child {
  fill: var(--heather-wash);
  stroke: var(--heather);
}
</style>
