<script setup lang="ts">
import { computed } from 'vue'
import type { ScanView } from '@/api/types'

/** One band as a strip of spectrum: strangers as loud as they are heard loudest, this site's own channels below. */
type Stranger = NonNullable<ScanView['strangers']>[number]
const props = defineProps<{ band: Stranger['band']; strangers: Stranger[]; own: NonNullable<ScanView['own']> }>()
const WIDE = 440
const TOP = 16
const HIGH = 70
const LOUD = -50
const FAINT = -95
const LEFT = 34
const ENDS: Record<Stranger['band'], [number, number]> = { '2.4': [-2, 16], 5: [32, 180], 6: [-3, 235] }
const x = (channel: number) => {
  const [first, last] = ENDS[props.band]
  return LEFT + ((channel - first) / (last - first)) * (WIDE - LEFT)
}
const y = (dbm: number) => TOP + ((LOUD - Math.min(LOUD, Math.max(FAINT, dbm))) / (LOUD - FAINT)) * HIGH
const minus = (v: number) => v.toFixed(0).replace('-', '−')
const MARKS = [-60, -75, -90]
const blocks = computed(() => [...props.strangers].sort((a, b) => b.last - b.first - (a.last - a.first) || a.dbm - b.dbm))
/** Names of the loudest, where they do not stand on one another. */
const names = computed(() => {
  const shown: Stranger[] = []
  for (const s of props.strangers) {
    const clear = shown.every((o) => Math.abs(x((o.first + o.last) / 2) - x((s.first + s.last) / 2)) > 62 || Math.abs(y(o.dbm) - y(s.dbm)) > 11)
    if (clear && shown.length < 9) shown.push(s)
  }
  return shown
})
const said = computed(() => props.strangers.map((s) => `${s.name}, channel ${s.channel}, ${s.dbm.toFixed(0)} dBm at ${s.loudest_at}`).join('; '))
</script>

<template>
  <svg class="strip" :viewBox="`0 0 ${WIDE} ${TOP + HIGH + 28}`" role="img" :aria-label="`${band} GHz: ${said}`" :data-strip="band">
    <text class="band" x="0" :y="TOP - 4">{{ band }} GHz</text>
    <g v-for="m in MARKS" :key="m"><line :x1="LEFT" :x2="WIDE" :y1="y(m)" :y2="y(m)" class="mark" /><text class="unit" :x="LEFT - 4" :y="y(m) + 3" text-anchor="end">{{ minus(m) }}</text></g>
    <path v-for="s in blocks" :key="`${s.address} ${s.channel}`" class="stranger" :class="{ ours: s.ours }" :d="`M${x(s.first)} ${TOP + HIGH} L${x(s.first) + 3} ${y(s.dbm)} H${x(s.last) - 3} L${x(s.last)} ${TOP + HIGH} Z`" />
    <text v-for="s in names" :key="`n ${s.address} ${s.channel}`" class="name" text-anchor="middle" :x="Math.min(WIDE - 26, Math.max(LEFT + 26, x((s.first + s.last) / 2)))" :y="y(s.dbm) - 2">{{ s.name }} {{ minus(s.dbm) }}</text>
    <line :x1="LEFT" :x2="WIDE" :y1="TOP + HIGH" :y2="TOP + HIGH" class="ground" />
    <g v-for="o in own" :key="o.channel">
      <rect class="own" :x="x(o.first) + 0.5" :width="Math.max(2, x(o.last) - x(o.first) - 1)" :y="TOP + HIGH + 2" height="12" rx="1.5" />
      <text class="ownname" text-anchor="middle" :x="x((o.first + o.last) / 2)" :y="TOP + HIGH + 12">{{ o.channel }}</text>
      <text class="unit" text-anchor="middle" :x="x((o.first + o.last) / 2)" :y="TOP + HIGH + 25">{{ o.radios }}×</text>
    </g>
    <text class="unit" x="0" :y="TOP + HIGH + 12">ours</text>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  width: 100%;
  max-width: 620px;
  margin: 6px 0 2px;
}
.mark {
  stroke: var(--granite-light);
}
.ground {
  stroke: var(--ink);
}
.stranger {
  fill: color-mix(in srgb, var(--granite-mid) 34%, transparent);
  stroke: var(--granite);
  stroke-width: 0.8;
}
.stranger.ours {
  stroke: var(--rust);
  fill: color-mix(in srgb, var(--rust) 25%, transparent);
}
.own {
  fill: var(--heather);
}
.ownname {
  font: 600 9.5px var(--mono);
  fill: var(--paper);
}
.name {
  font: 500 9.5px var(--condensed);
  fill: var(--ink);
}
.band {
  font: 600 10.5px var(--condensed);
  fill: var(--ink);
}
.unit {
  font: 400 9px var(--mono);
  fill: var(--granite);
}
</style>
