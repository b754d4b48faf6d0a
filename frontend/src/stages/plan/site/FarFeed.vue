<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { LandView } from '@/api/types'
import { length, whole } from '@/document/units'

/** All places of a rack on one feed of direct current: volts over the metres of its cable, place by place. */
const props = defineProps<{ feed: NonNullable<LandView['feed']>; currency: string; drawn: boolean }>()
defineEmits<{ choose: [id: string]; draw: [on: boolean] }>()
const WIDE = 820
const HIGH = 150
const PAD = { left: 40, right: 12, top: 12, bottom: 20 }
const BELOW = 0.5 // of what is lost at most, drawn below it for the names
const DOT = 5
const LETTER = 6.7 // wide
const LINE = 12 // high

const rows = computed(() => props.feed.rows)
const far = computed(() => Math.max(...rows.value.map((r) => r.path_m)))
const lowest = computed(() => Math.min(...rows.value.map((r) => r.volts)))
/** Where converters give up is drawn when volts come near it, else only said. */
const low = computed(() => lowest.value - BELOW * (props.feed.source_v - lowest.value))
const x = (m: number) => PAD.left + (m / far.value) * (WIDE - PAD.left - PAD.right)
const y = (v: number) => PAD.top + ((props.feed.source_v - v) / (props.feed.source_v - low.value)) * (HIGH - PAD.top - PAD.bottom)
const at = computed(() => new Map([['', { x: x(0), y: y(props.feed.source_v) }], ...rows.value.map((r) => [r.point, { x: x(r.path_m), y: y(r.volts) }] as const)]))
/** Each name stands where no other and no dot is: right of its own, above, below, or ever lower. */
const names = computed(() => {
  const taken = rows.value.map((r) => ({ left: at.value.get(r.point)!.x - DOT, top: at.value.get(r.point)!.y - DOT, wide: 2 * DOT, high: 2 * DOT }))
  return [...rows.value].sort((a, b) => a.path_m - b.path_m).map((r) => {
    const here = at.value.get(r.point)!
    const wide = LETTER * `${r.name} ${r.volts.toFixed(1)} V`.length
    const spots = [[0, -DOT - 4], [DOT + 2, 4], [0, DOT + 12], [-wide, DOT + 12], ...Array.from({ length: 6 }, (_, k) => [0, DOT + 12 + LINE * (k + 1)])]
    const free = ([dx, dy]: number[]) => {
      const left = here.x + dx!
      const top = here.y + dy! - LINE
      const inside = left >= 0 && left + wide <= WIDE && top >= -2
      return inside && taken.every((t) => left >= t.left + t.wide || t.left >= left + wide || top >= t.top + t.high || t.top >= top + LINE)
    }
    const [dx, dy] = spots.find(free) ?? spots[2]!
    taken.push({ left: here.x + dx!, top: here.y + dy! - LINE, wide, high: LINE })
    return { ...r, x: here.x + dx!, y: here.y + dy! }
  })
})
const saved = computed(() => (props.feed.alone_once === null || props.feed.alone_once === undefined ? null : props.feed.alone_once - props.feed.once))
const KINDS: Record<string, string> = { plain: 'plain converters', boost: 'converters with boost' }
</script>

<template>
  <section class="feed" aria-label="One feed" data-testid="far-feed">
    <p>
      <strong>One feed to {{ rows.length }} places</strong>
      <Button :label="drawn ? 'Off the drawing' : 'Show it on the drawing'" size="small" outlined :aria-pressed="drawn" data-draw-feed @click="$emit('draw', !drawn)" />
      <span><b class="figure">{{ feed.mm2 }} mm²</b>, {{ KINDS[feed.kind] }}, {{ feed.source_w.toFixed(0) }} W at the rack; <template v-if="feed.fuse_a">a fuse of <b class="figure">{{ feed.fuse_a }} A</b></template><template v-else>no fuse that is listed</template> for {{ feed.start_a.toFixed(1) }} A as all start at once. Converters give up at {{ feed.least_v }} V.</span>
      <span>{{ length(feed.trench_m, 0) }} of trench instead of {{ length(feed.alone_m, 0) }}, <b class="figure">{{ whole(feed.once) }} {{ currency }}</b> of trench, fibre and feed<template v-if="saved !== null">: {{ whole(Math.abs(saved)) }} {{ saved >= 0 ? 'less' : 'more' }} than to each by itself</template><template v-else>; not every place has a feed of its own</template>.</span>
      <span v-if="feed.left.length" class="not_met">No conductor feeds {{ feed.left.join(', ') }} with the others.</span>
    </p>
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="`${feed.source_v} V at the rack, ${lowest.toFixed(1)} V where it is least`">
      <path v-if="feed.least_v > low" :d="`M${PAD.left} ${y(feed.least_v)}H${WIDE - PAD.right}`" class="least" />
      <text :x="PAD.left - 4" :y="y(feed.source_v) + 4" text-anchor="end">{{ feed.source_v }} V</text>
      <path v-for="r in rows" :key="r.point" :d="`M${at.get(r.before)!.x} ${at.get(r.before)!.y}L${at.get(r.point)!.x} ${at.get(r.point)!.y}`" class="fall" />
      <g v-for="n in names" :key="n.point" class="place" role="button" tabindex="0" :aria-label="`${n.name}, ${n.volts.toFixed(1)} volts`" @click="$emit('choose', n.point)" @keydown.enter="$emit('choose', n.point)">
        <circle :cx="at.get(n.point)!.x" :cy="at.get(n.point)!.y" r="4.5" />
        <text :x="n.x" :y="n.y">{{ n.name }} {{ n.volts.toFixed(1) }} V</text>
      </g>
      <text :x="PAD.left" :y="HIGH - 5">0</text>
      <text :x="x(far)" :y="HIGH - 5" text-anchor="end">{{ length(far, 0) }} of cable</text>
    </svg>
    <p class="quiet">Extra-low voltage; its breaker, fuse and earths are licensed work, by local code.</p>
  </section>
</template>

<style scoped>
.feed {
  margin-top: 8px;
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin: 2px 0;
}
svg {
  display: block;
  width: 100%;
  background: var(--paper-deep);
}
.least {
  stroke: var(--rust);
  stroke-dasharray: 4 3;
}
.fall {
  stroke: var(--heather);
  stroke-width: 2;
}
.place {
  cursor: pointer;
}
.place circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2;
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper-deep);
  stroke-width: 3px;
}
.quiet {
  color: var(--granite);
}
text.quiet {
  fill: var(--granite);
}
</style>
