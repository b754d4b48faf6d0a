<script setup lang="ts">
import { computed } from 'vue'
import type { FarOffer } from '@/api/types'
import { signed, speed } from '@/document/units'

/** A radio's line: its rates as stairs over the level, and where on them it stands in clear weather and in rain. */
const props = defineProps<{ way: FarOffer }>()
const WIDE = 300
const HIGH = 132
const PAD = { left: 4, right: 4, top: 16, bottom: 32 }
const BEYOND_DB = 4
const ROOM_PX = 72 // that a label takes
const HOUR = 60

const weather = computed(() => props.way.weather!)
const rates = computed(() => props.way.rates!)
const levels = computed(() => [...weather.value.map((w) => w.level_dbm), ...rates.value.map((r) => r.from_dbm)])
const low = computed(() => Math.min(...levels.value) - BEYOND_DB)
const high = computed(() => Math.max(...levels.value) + BEYOND_DB)
const x = (dbm: number) => PAD.left + ((dbm - low.value) / (high.value - low.value)) * (WIDE - PAD.left - PAD.right)
const step = computed(() => (HIGH - PAD.top - PAD.bottom) / rates.value.length)
const y = (k: number) => HIGH - PAD.bottom - k * step.value
const stairs = computed(() => `M${PAD.left} ${y(0)}${rates.value.map((r, k) => `H${x(r.from_dbm)}V${y(k + 1)}`).join('')}H${WIDE - PAD.right}`)
const rung = (dbm: number) => rates.value.filter((r) => dbm >= r.from_dbm).length
const often = (minutes: number) => (minutes < 2 * HOUR ? `${minutes} min` : `${Math.round(minutes / HOUR)} h`)
const rows = computed(() => weather.value.map((w) => ({ ...w, x: x(w.level_dbm), y: y(rung(w.level_dbm)) })))
/** The clear mark is named to its right, the rarest to its left, where there is room for both. */
const named = computed(() => {
  const clear = rows.value[0]!
  const rare = rows.value.at(-1)!
  const right = clear.x < WIDE - ROOM_PX
  const both = rare.x > ROOM_PX && clear.x - rare.x > (right ? 2 : ROOM_PX)
  return [{ ...clear, anchor: right ? 'start' : 'end', name: 'clear' }, ...(both ? [{ ...rare, anchor: 'end', name: `${often(rare.minutes)} a year` }] : [])]
})
const worst = computed(() => weather.value.at(-1)!)
const said = computed(() =>
  weather.value[0]!.level_dbm - worst.value.level_dbm < 1
    ? 'Rain takes less than 1 dB of it.'
    : `Worse than ${signed(worst.value.level_dbm)} dBm, ${speed(worst.value.mbps)}, for ${often(worst.value.minutes)} of a year.`,
)
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="`${signed(weather[0]!.level_dbm)} dBm in clear weather, ${speed(weather[0]!.mbps)}`" data-line-level>
      <path :d="stairs" class="stairs" />
      <text v-for="(r, k) in rates" :key="r.mbps" :x="x(r.from_dbm) + 3" :y="y(k + 1) - 3" class="rate">{{ r.mbps }}</text>
      <g v-for="m in rows" :key="m.percent" class="mark" :class="{ clear: !m.percent, none: !m.mbps }">
        <path :d="`M${m.x} ${m.y}V${HIGH - PAD.bottom}`" />
        <circle :cx="m.x" :cy="m.y" :r="m.percent ? 3.5 : 5" />
      </g>
      <g v-for="n in named" :key="n.name">
        <text :x="n.x" :y="HIGH - PAD.bottom + 13" :text-anchor="n.anchor">{{ signed(n.level_dbm) }} dBm</text>
        <text :x="n.x" :y="HIGH - PAD.bottom + 26" :text-anchor="n.anchor" class="quiet">{{ n.name }}</text>
      </g>
    </svg>
    <figcaption>Mb/s over the level at both ends, its margin within. {{ said }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 4px 0;
}
svg {
  display: block;
  width: 100%;
  background: var(--paper-deep);
}
.stairs {
  fill: none;
  stroke: var(--granite);
  stroke-width: 1.4;
}
.mark path {
  stroke: var(--tarn);
  stroke-width: 1;
  stroke-dasharray: 2 3;
}
.mark circle {
  fill: var(--paper);
  stroke: var(--tarn);
  stroke-width: 1.6;
}
.mark.clear circle {
  fill: var(--tarn);
}
.mark.none circle {
  stroke: var(--rust);
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
}
.rate,
.quiet {
  fill: var(--granite);
}
figcaption {
  color: var(--granite);
  margin-top: 2px;
}
</style>
