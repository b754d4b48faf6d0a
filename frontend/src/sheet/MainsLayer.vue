<script setup lang="ts">
import { computed } from 'vue'
import type { Kind, Light, MainsRoute, Panel, Socket } from '@/api/types'
import { linePath } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { useFigures } from '@/figures/useFigures'
import MarkShape from './MarkShape.vue'
import type { MarkName } from './names'
import type { Movable } from './useGestures'
import type { Viewport } from './useViewport'

/** Mains of a storey: panels with the space before them, cables as drawn or guessed, sockets, lights. */
const props = defineProps<{
  floor: string
  panels: Panel[]
  sockets: Socket[]
  lights: Light[]
  routes: MainsRoute[]
  names: Map<string, MarkName>
  viewport: Viewport
  chosen: string | null
  active: boolean
}>()
const emit = defineEmits<{ choose: [kind: Kind, id: string]; grab: [kind: Movable, id: string, event: PointerEvent] }>()
const store = useDesign()
const figures = useFigures()
const metres = (name: string) => Number(figures.valueOf(`plan.panel_space_m.${name}`) ?? 0)

const spaces = computed(() =>
  props.panels.map((panel) => {
    const [wide, deep] = [metres('wide'), metres('deep')]
    const turn = (panel.azimuth_deg * Math.PI) / 180
    const corner = (x: number, y: number) =>
      props.viewport.toScreen([panel.at[0] + x * Math.cos(turn) + y * Math.sin(turn), panel.at[1] - x * Math.sin(turn) + y * Math.cos(turn)])
    const corners = [corner(-wide / 2, 0), corner(wide / 2, 0), corner(wide / 2, deep), corner(-wide / 2, deep)]
    return { id: panel.id, path: `${linePath(corners)}Z` }
  }),
)
/** What nobody drew, as the plan takes it. */
const guesses = computed(() => (store.shown?.plan.mains ?? []).filter((line) => line.floor === props.floor && line.guessed))
const onScreen = (points: readonly (readonly number[])[]) => linePath(points.map((p) => props.viewport.toScreen(p)))
const marks = computed(() => [
  ...props.lights.map((l) => ({ kind: 'light' as const, shape: 'lamp', row: l, turn: null, state: '' })),
  ...props.sockets.map((s) => ({ kind: 'socket' as const, shape: 'spring', row: s, turn: null, state: s.state })),
  ...props.panels.map((p) => ({ kind: 'panel' as const, shape: 'sluice', row: p, turn: p.azimuth_deg, state: '' })),
].map((m) => ({ ...m, spot: props.viewport.toScreen(m.row.at) })))
</script>

<template>
  <g data-layer="mains" :class="{ active }">
    <defs>
      <pattern id="kept-clear" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0V6" class="hatch" />
      </pattern>
    </defs>
    <path v-for="s in spaces" :key="s.id" :d="s.path" class="space" :data-clear="s.id"><title>Kept clear</title></path>
    <path v-for="g in guesses" :key="g.id" :d="onScreen(g.points)" class="mains guess" :data-guess="g.socket"><title>{{ g.name }}, a guess along the walls</title></path>
    <template v-for="r in routes" :key="r.id">
      <path :d="onScreen(r.path)" class="mains" :class="{ chosen: chosen === r.id }" />
      <path :d="onScreen(r.path)" class="reach" :data-mains="r.id" @click.stop="active && emit('choose', 'mains_route', r.id)"><title>{{ r.name }}</title></path>
    </template>
    <g
      v-for="m in marks" :key="m.kind + m.row.id" class="mark" :class="[m.kind, m.state, { chosen: chosen === m.row.id }]"
      :transform="`translate(${m.spot[0]} ${m.spot[1]})`" :data-mark="m.row.id" @pointerdown="active && emit('grab', m.kind, m.row.id, $event)"
    >
      <circle r="11" class="halo" />
      <MarkShape :shape="m.shape" :turn="m.turn" />
      <text v-if="m.state === 'new'" x="8" y="-5" class="fresh">+</text>
      <text
        v-if="names.has(m.row.id)" :x="names.get(m.row.id)!.dx" :y="names.get(m.row.id)!.dy" :text-anchor="names.get(m.row.id)!.anchor" class="name"
      >{{ m.row.name }}</text>
    </g>
  </g>
</template>

<style scoped>
g[data-layer] {
  pointer-events: none;
  opacity: 0.55;
}
g[data-layer].active {
  opacity: 1;
}
.active .mark {
  pointer-events: auto;
  cursor: grab;
}
.space {
  fill: url(#kept-clear);
  stroke: var(--rust);
  stroke-width: 1;
  stroke-dasharray: 3 2;
}
.hatch {
  stroke: var(--rust);
  stroke-width: 0.8;
  opacity: 0.7;
}
.mains {
  fill: none;
  stroke: var(--gorse-ink);
  stroke-width: 1.8;
  stroke-dasharray: 7 2 2 2;
}
.mains.guess {
  stroke-width: 1.2;
  stroke-dasharray: 1 4;
}
.mains.chosen {
  stroke: var(--heather);
  stroke-width: 2.6;
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 11;
}
.active .reach {
  pointer-events: stroke;
  cursor: pointer;
}
.mark {
  color: var(--gorse-ink);
}
.mark.retire,
.mark.unknown {
  color: var(--granite);
}
.halo {
  fill: transparent;
}
.mark.chosen {
  color: var(--heather);
}
.mark.chosen .halo {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 1.5;
}
.fresh {
  font: 600 13px var(--mono);
  fill: var(--heather);
}
.name {
  font: 600 11px var(--condensed);
  fill: var(--gorse-ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}
</style>
