<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { FarOffer, LineChannel } from '@/api/types'
import { inUnits, money, speed } from '@/document/units'
import FarLevel from './FarLevel.vue'
import FarSun from './FarSun.vue'
import { STATES } from './farWords'

/** One way to a place: what it is judged by, an instrument for what feeds it, what it takes, what can hurt. */
const props = defineProps<{ way: FarOffer; years: number; currency: string; taken: boolean; channel: LineChannel | null }>()
defineEmits<{ take: []; leave: []; inject: [] }>()
/** It wants a port that feeds it, and none is left: an injector would do. */
const fedPort = computed(() => props.way.port?.poe_class !== null && props.way.checks.some((c) => c.state === 'near' && c.would.startsWith('an injector')))
const WIDE = 300
const HIGH = 96
const TOP = 18
const FOOT = 16
const LOWEST = 0.8 // of the volts at which the converter gives up
/** Volts over the metres of a feed: one current all along, so they fall in a straight line. */
const feed = computed(() => {
  const f = props.way.feed
  if (!f) return null
  const low = LOWEST * f.least_v
  const y = (v: number) => TOP + ((f.source_v - v) / (f.source_v - low)) * (HIGH - TOP - FOOT)
  return { ...f, fall: `M0 ${y(f.source_v)}L${WIDE} ${y(f.end_v)}`, end: y(f.end_v), least: y(f.least_v) }
})
const sun = computed(() => props.way.sun ?? null)
const works = computed(() => props.way.tasks.map((t) => ({ ...t, h: t.person_minutes / 60 })))
</script>

<template>
  <article class="card" :aria-label="way.label" data-testid="far-way">
    <header>
      <h3>{{ way.label }}</h3>
      <Button v-if="taken" label="Let it go" size="small" outlined data-leave @click="$emit('leave')" />
      <Button v-else label="Take it" size="small" :outlined="way.verdict !== 'met'" data-take @click="$emit('take')" />
    </header>
    <ul class="checks">
      <li v-for="(c, k) in way.checks" :key="k" :class="c.state"><i aria-hidden="true" /><span><b class="state">{{ STATES[c.state] }}</b> {{ inUnits(c.words) }}<small v-if="c.would">Would bring it in: {{ inUnits(c.would) }}</small></span></li>
    </ul>
    <Button v-if="fedPort" label="Feed it by an injector at the rack" size="small" outlined data-inject @click="$emit('inject')" />
    <FarLevel v-if="way.weather?.length" :way="way" />
    <svg v-if="feed" :viewBox="`0 0 ${WIDE} ${HIGH}`" class="feed" role="img" :aria-label="`${feed.source_v} V at the house, ${feed.end_v.toFixed(1)} V there`">
      <path :d="`M0 ${feed.least}H${WIDE}`" class="least" />
      <path :d="feed.fall" class="fall" />
      <text x="4" y="13">{{ feed.source_v }} V at the house</text>
      <text :x="WIDE - 4" :y="feed.end - 5" text-anchor="end">{{ feed.end_v.toFixed(1) }} V there</text>
      <text x="4" :y="feed.least + 12" class="quiet">gives up at {{ feed.least_v }} V</text>
    </svg>
    <p v-if="feed" class="quiet figure">{{ feed.mm2 }} mm², {{ feed.amperes.toFixed(2) }} A, {{ feed.lost_w.toFixed(1) }} W stay in the cable</p>
    <table v-if="feed" class="volts" aria-label="Which voltage">
      <thead><tr><th>Begins with</th><th>Plain converter</th><th>With boost</th></tr></thead>
      <tbody>
        <tr v-for="c in feed.choices" :key="c.source_v" :class="{ now: c.source_v === feed.source_v }" :data-feed-volts="c.source_v">
          <td class="figure">{{ c.source_v }} V</td>
          <td v-for="(mm2, k) in [c.plain_mm2, c.boost_mm2]" :key="k" :class="mm2 ? 'figure' : 'not_met'">{{ mm2 ? `${mm2} mm²` : 'does not run' }}</td>
        </tr>
      </tbody>
    </table>
    <FarSun v-if="sun" :sun="sun" />
    <p v-if="channel" :class="channel.clear ? 'set' : 'near'" data-line-channel>Set both ends to channel <b class="figure">{{ channel.channel }}</b>, {{ channel.width_mhz }} MHz: {{ channel.words }}.<template v-if="channel.radar"> It listens for radar first, and leaves where it hears any.</template></p>
    <dl>
      <dt>Gives</dt><dd class="figure">{{ speed(way.mbps) }}, {{ way.delay_ms }} ms</dd>
      <dt>Air of the plan</dt><dd class="figure">{{ way.air === null || way.air === undefined ? 'none' : `${Math.round(100 * way.air)} % of a channel` }}</dd>
      <dt>Drawn there</dt><dd class="figure">{{ way.watts }} W</dd>
      <template v-if="way.verdict !== 'out'">
        <dt>At once</dt><dd class="figure">{{ money(way.cost.once) }} {{ currency }}</dd>
        <template v-if="way.cost.monthly"><dt>A month</dt><dd class="figure">{{ money(way.cost.monthly) }}</dd></template>
        <dt>Energy and upkeep a year</dt><dd class="figure">{{ money(way.cost.energy_year + way.cost.upkeep_year) }}</dd>
        <template v-if="way.cost.later"><dt>Replaced within the years</dt><dd class="figure">{{ money(way.cost.later) }}</dd></template>
        <dt>Over {{ years }} years</dt><dd class="figure"><b>{{ money(way.cost.total) }} {{ currency }}</b></dd>
      </template>
    </dl>
    <p v-if="way.needs.length">Needs {{ inUnits(way.needs.join('; ')) }}.</p>
    <p v-for="l in way.licensed" :key="l" class="near">{{ l }}</p>
    <p v-for="h in way.hurts" :key="h" class="caution">{{ h }}</p>
    <details>
      <summary>{{ way.parts.length }} kinds of parts, {{ way.cost.hours }} h of work</summary>
      <p v-for="p in way.parts" :key="p.item" class="line"><span>{{ p.label }}</span><span class="figure">{{ p.quantity }} {{ p.unit === 'm' ? 'm' : '' }}</span></p>
      <p v-for="t in works" :key="t.key" class="line"><span>{{ inUnits(t.label) }}</span><span class="figure">{{ t.h.toFixed(1) }} h</span></p>
      <p class="quiet">Without tax; days on site, travel and clearing up come on top in the order. What stands there is the same over any way.</p>
    </details>
  </article>
</template>

<style scoped>
.card {
  overflow: auto;
  border-left: 1px solid var(--granite-light);
  padding-left: 14px;
}
header {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 8px;
}
.volts {
  width: 100%;
  border-collapse: collapse;
  margin: 4px 0;
}
.volts th {
  text-align: left;
  font-weight: 600;
  color: var(--granite);
}
.volts td {
  padding: 1px 8px 1px 0;
}
.volts .now {
  background: var(--heather-wash);
}
.not_met {
  color: var(--rust);
}
header :deep(button) {
  flex: none;
}
h3 {
  font-size: 13.5px;
  margin: 2px 0 4px;
}
.checks {
  list-style: none;
  margin: 0;
  padding: 0;
}
.checks li {
  display: flex;
  gap: 7px;
  margin-bottom: 3px;
}
.checks i {
  flex: none;
  width: 4px;
  background: var(--moss);
}
.checks .near i {
  background: var(--gorse);
}
.checks .out i {
  background: var(--rust);
}
.state {
  position: absolute;
  clip-path: inset(50%);
}
.checks small {
  display: block;
  color: var(--granite);
}
.feed {
  width: 100%;
  background: var(--paper-deep);
}
.fall {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2;
}
.least {
  stroke: var(--rust);
  stroke-dasharray: 4 3;
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper-deep);
  stroke-width: 3px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 1px 10px;
  margin: 6px 0;
}
dd {
  margin: 0;
  text-align: right;
}
p {
  margin: 3px 0;
}
.near {
  color: var(--gorse-ink);
}
.caution {
  color: var(--granite);
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
summary {
  cursor: pointer;
  padding: 4px 0;
}
@container (max-width: 760px) {
  .card {
    border-left: 0;
    border-top: 1px solid var(--granite-mid);
    padding: 6px 0 0;
  }
}
@media (pointer: coarse) {
  summary {
    min-height: 44px;
  }
}
</style>
