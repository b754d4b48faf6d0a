<script setup lang="ts">
import { computed } from 'vue'
import type { DiagramCard } from '@/api/types'
import { laneColours } from '@/document/networks'
import { useDesign } from '@/document/store'
import { useDiagram } from './useDiagram'

/** What joins the cards, as the reading asks: by cable and speed, by networks as lanes, by watts; racks as frames. */
defineProps<{ wide: number; high: number }>()
const store = useDesign()
const { view, reading, nodes, cards, cardOf, path, chosen } = useDiagram()
const grid = computed(() => view.value!.picture.grid)
const left = (c: { column: number }) => grid.value.margin + c.column * grid.value.column
const middle = (c: { row: number }) => view.value!.picture.tops![c.row]! + grid.value.card_high / 2
const lanes = computed(() => laneColours(store.settings?.networks ?? []))
const STRAND = 3
const SLOW_MBPS = 1000
const FAST_MBPS = 2500

function way(from: DiagramCard, to: DiagramCard, shift = 0): string {
  const [x1, y1, x2, y2] = [left(from) + grid.value.card_wide, middle(from) + shift, left(to), middle(to) + shift]
  const bus = x1 + (x2 - x1) * 0.45 + shift
  return from.row === to.row ? `M${x1} ${y1}H${x2}` : `M${x1} ${y1}H${bus}V${y2}H${x2}`
}
interface Line { key: string; d: string; tone: string; width: number; colour?: string; on: boolean }
const lines = computed<Line[]>(() => cards.value.flatMap((card) => {
  const node = nodes.value.get(card.nodes[0]!)
  const above = node?.parent ? cardOf.value.get(node.parent) : undefined
  const joint = node?.joint
  if (!node || !above || !joint) return []
  const joints = card.nodes.flatMap((n) => nodes.value.get(n)?.joint ?? [])
  const speed = Math.min(...joints.map((j) => j.speed_mbps ?? 0))
  const on = !!chosen.value && card.nodes.some((n) => path.value.has(n))
  const line = (tone: string, width: number, more: Partial<Line> = {}): Line => ({ key: card.id, d: way(above, card), tone, width, on, ...more })
  if (reading.value === 'networks') {
    const vlans = new Set(joints.flatMap((j) => [...(j.untagged != null ? [j.untagged] : []), ...(j.tagged ?? [])]))
    const order = [...lanes.value.keys()].filter((v) => vlans.has(v))
    if (!order.length) return [line(joint.kind, 1.4)]
    return order.map((v) => line(joint.kind, STRAND - 0.6, { key: `${card.id} ${v}`, colour: lanes.value.get(v)!, d: way(above, card, ([...lanes.value.keys()].indexOf(v) - (lanes.value.size - 1) / 2) * STRAND) }))
  }
  if (reading.value === 'power') {
    const watts = card.nodes.reduce((sum, n) => sum + (nodes.value.get(n)?.joint?.watts ?? 0), 0)
    return [watts ? line('watts', 1.2 + Math.min(6, watts / 16)) : line('idle', 1)]
  }
  const width = reading.value === 'client' ? 1.6 : speed >= FAST_MBPS ? 3 : speed >= SLOW_MBPS ? 1.9 : 1.1
  return [line(joints.some((j) => j.verdict === 'not_met') ? `${joint.kind} wrong` : joint.kind, width)]
}))
const seconds = computed(() => (view.value?.picture.seconds ?? []).flatMap(([b, a]) => {
  const [below, above] = [cards.value.find((c) => c.id === b), cards.value.find((c) => c.id === a)]
  return below && above ? [`M${left(above) + grid.value.card_wide} ${middle(above)}C${left(above) + grid.value.card_wide + 60} ${middle(above)} ${left(below) - 60} ${middle(below)} ${left(below)} ${middle(below)}`] : []
}))
const LETTER_PX = 5.4
/** What of a rack's line fits its frame. */
const short = (said: string, wide: number) => (said.length * LETTER_PX > wide - 16 ? `${said.slice(0, Math.floor((wide - 24) / LETTER_PX))}…` : said)
const frames = computed(() => (view.value?.picture.frames ?? []).map((f) => ({
  ...f, x: left(f) - grid.value.frame_pad, y: view.value!.picture.tops![f.row]! - grid.value.frame_head,
  wide: (f.last_column - f.column) * grid.value.column + grid.value.card_wide + 2 * grid.value.frame_pad,
  high: view.value!.picture.tops![f.last_row]! - view.value!.picture.tops![f.row]! + grid.value.card_high + grid.value.frame_head + grid.value.frame_pad,
})))
</script>

<template>
  <svg class="lines" :width="wide" :height="high" aria-hidden="true">
    <g v-for="f in frames" :key="`${f.room} ${f.row}`" class="frame" :data-frame="f.room">
      <rect :x="f.x" :y="f.y" :width="f.wide" :height="f.high" rx="3" />
      <text :x="f.x + 8" :y="f.y + 12">{{ short([f.name, f.says?.[reading]].filter(Boolean).join(': '), f.wide) }}</text>
    </g>
    <path v-for="(d, k) in seconds" :key="`second ${k}`" class="second" :d="d" />
    <path v-for="l in lines" :key="l.key" class="line" :class="[l.tone, { on: l.on }]" :d="l.d" :stroke-width="l.on ? l.width + 1.4 : l.width" :style="l.colour ? { stroke: l.colour } : undefined" />
  </svg>
</template>

<style scoped>
.lines {
  position: absolute;
  inset: 0;
}
.frame rect {
  fill: var(--paper-deep);
  stroke: var(--granite-mid);
}
.frame text {
  font: 600 10.5px var(--condensed);
  fill: var(--granite);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-linejoin: round;
}
.fibre {
  stroke: var(--tarn);
}
.air {
  stroke-dasharray: 6 4;
}
.none {
  stroke: var(--rust);
  stroke-dasharray: 2 4;
}
.wrong {
  stroke: var(--rust);
}
.idle {
  stroke: var(--granite-mid);
}
.watts {
  stroke: var(--gorse);
}
.line.on {
  stroke: var(--heather);
}
.second {
  fill: none;
  stroke: var(--granite-mid);
  stroke-dasharray: 3 5;
}
</style>
