<script setup lang="ts">
import { computed } from 'vue'
import type { Walk, WalkPoint } from '@/api/types'
import type { Viewport } from './useViewport'

/** A surveyor's traverse: the path on this storey, a tick each five seconds, what happens on the way. */
const props = defineProps<{ points: WalkPoint[]; walk: Walk | null; moment: number; floor: string; viewport: Viewport }>()
const TICK_S = 5
const SIGN = { hand_over: '⇄', lost: '✕', back: '○', clings: '~' } as const

const legs = computed(() => {
  const found: string[] = []
  for (let k = 1; k < props.points.length; k++) {
    const [a, b] = [props.points[k - 1]!, props.points[k]!]
    if (a.floor !== props.floor || b.floor !== props.floor) continue
    const [p, q] = [props.viewport.toScreen(a.at), props.viewport.toScreen(b.at)]
    found.push(`M${p[0]} ${p[1]}L${q[0]} ${q[1]}`)
  }
  return found.join('')
})
const onFloor = computed(() => (props.walk?.samples ?? []).filter((s) => s.floor === props.floor))
/** Where a call is lost, drawn over the path. */
const lost = computed(() => {
  const found: string[] = []
  let last: number | null = null
  for (const s of onFloor.value) {
    if (s.serving === null) {
      const [x, y] = props.viewport.toScreen(s.at)
      found.push(`${last !== null && s.t_s - last < 0.6 ? 'L' : 'M'}${x} ${y}`)
      last = s.t_s
    }
  }
  return found.join('')
})
const ticks = computed(() =>
  onFloor.value.filter((s) => Math.abs(s.t_s % TICK_S) < 0.01).map((s) => {
    const [x, y] = props.viewport.toScreen(s.at)
    return { x, y, t: s.t_s }
  }),
)
const events = computed(() =>
  (props.walk?.events ?? []).filter((e) => e.floor === props.floor).map((e) => {
    const [x, y] = props.viewport.toScreen(e.at)
    return { key: `${e.kind}-${e.t_s}`, x, y, sign: SIGN[e.kind], bad: e.bad || e.kind === 'clings', text: e.text }
  }),
)
const here = computed(() => {
  const samples = props.walk?.samples ?? []
  const s = samples[Math.min(samples.length - 1, Math.round(props.moment / 0.5))]
  return s && s.floor === props.floor ? props.viewport.toScreen(s.at) : null
})
const corners = computed(() => props.points.filter((p) => p.floor === props.floor).map((p) => props.viewport.toScreen(p.at)))
</script>

<template>
  <g class="walk" data-layer="walk">
    <path :d="legs" class="under" /><path :d="legs" class="way" />
    <path v-if="lost" :d="lost" class="lost" />
    <circle v-for="(c, i) in corners" :key="i" :cx="c[0]" :cy="c[1]" r="3" class="corner" />
    <g v-for="t in ticks" :key="t.t" :transform="`translate(${t.x} ${t.y})`" class="tick"><path d="M-4 -4L4 4M-4 4L4 -4" /><text v-if="t.t % 10 === 0" x="7" y="-6">{{ t.t }}</text></g>
    <g v-for="e in events" :key="e.key" :transform="`translate(${e.x} ${e.y})`" :class="['event', { bad: e.bad }]" :data-event="e.key">
      <circle r="9" /><text y="4" text-anchor="middle">{{ e.sign }}</text><title>{{ e.text }}</title>
    </g>
    <circle v-if="here" :cx="here[0]" :cy="here[1]" r="6" class="here" />
  </g>
</template>

<style scoped>
.walk {
  pointer-events: none;
}
path {
  fill: none;
}
.under {
  stroke: var(--paper);
  stroke-width: 5;
}
.way {
  stroke: var(--ink);
  stroke-width: 2;
}
.lost {
  stroke: var(--rust);
  stroke-width: 6;
  stroke-linecap: round;
}
.corner {
  fill: var(--ink);
}
.tick path {
  stroke: var(--ink);
  stroke-width: 1.2;
}
.tick text {
  font: 500 10px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.event circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2;
}
.event text {
  font: 600 12px var(--sans);
  fill: var(--heather);
}
.event.bad circle {
  stroke: var(--rust);
}
.event.bad text {
  fill: var(--rust);
}
.here {
  fill: var(--heather);
  stroke: var(--paper);
  stroke-width: 2;
}
</style>
