<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'
import { api, taken } from '@/api/client'
import type { Device } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import { put, removal, runSaid } from '@/document/edits'
import { rounded } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { SPACES } from '../overheads'

/** How a run lies: its way as a line to scale, leg by leg, with bends and holes; what each leg costs to work. */
const props = defineProps<{ device: Device }>()
const store = useDesign()
const { answer } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/way', { params: { path: { project_id }, query: { device: props.device.id } } })),
  { about: () => props.device.id },
)
const way = computed(() => (answer.value?.way?.device === props.device.id ? answer.value.way : null))
const TONE: Record<string, string> = {
  ceiling_void: 'var(--moss-line)', plenum: 'var(--moss-line)', joists: 'var(--gorse)', raceway: 'var(--gorse)', attic: 'var(--rust)', duct: 'var(--tarn)', outdoor: 'var(--tarn)',
}
const WIDE = 296
const LEAST = 4
/** Legs to scale along one line, none so short that it is not seen. */
const strip = computed(() => {
  const legs = way.value?.legs ?? []
  const total = legs.reduce((sum, l) => sum + l.length_m, 0) || 1
  const room = WIDE - LEAST * legs.length
  let x = 0
  return legs.map((leg, k) => {
    const wide = LEAST + (leg.length_m / total) * room
    const holes = leg.holes.map((_, i) => x + (wide * (i + 1)) / (leg.holes.length + 1))
    const row = { key: k, x, wide, tone: TONE[leg.kind] ?? 'var(--granite)', holes, bends: leg.bends, leg }
    x += wide
    return row
  })
})

const points = computed(() => store.all('way_point').filter((p) => p.device === props.device.id))
/** A point to lead it by is put into the middle of its longest leg on the storey, to be dragged from there. */
function pin(): void {
  const run = store.shown?.cable.runs.find((r) => r.device === props.device.id)
  const level = [...(run?.legs ?? [])].filter((l) => l.points.length > 1 && l.kind !== 'riser' && l.kind !== 'duct').sort((a, b) => b.length_m - a.length_m)
  const leg = level.find((l) => l.floor === props.device.floor) ?? level[0]
  if (!leg) return
  const pieces = leg.points.slice(1).map((b, k) => [leg.points[k]!, b, Math.hypot(b[0] - leg.points[k]![0], b[1] - leg.points[k]![1])] as const)
  const [a, b] = pieces.reduce((best, p) => (p[2] > best[2] ? p : best))
  const id = store.nextId('way_point', 'way')
  const rank = 1 + Math.max(0, ...points.value.map((p) => p.rank ?? 0))
  const at: [number, number] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  store.commit(`Lead ${props.device.name} by a point`, [put('way_point', { id, device: props.device.id, floor: leg.floor, at: rounded(at, 0.05), rank })])
}
function unpin(): void {
  store.commit(`Way to ${props.device.name} by plan`, points.value.flatMap((p) => removal(store, 'way_point', p.id)))
}

function shortest(on: boolean): void {
  store.commit(`Way to ${props.device.name}`, [put('run', { ...runSaid(store, props.device.id), shortest: on })])
}
</script>

<template>
  <section v-if="way" class="way" :aria-label="`The way to ${way.name}`" data-testid="way">
    <h3>Its way, leg by leg</h3>
    <svg :viewBox="`0 0 ${WIDE} 22`" width="100%" height="22" aria-hidden="true">
      <g v-for="s in strip" :key="s.key">
        <rect :x="s.x" y="8" :width="Math.max(1, s.wide - 1)" height="7" :fill="s.tone" />
        <path v-for="h in s.holes" :key="h" :d="`M${h} 3V20`" class="hole" />
        <circle v-if="s.bends" :cx="s.x" cy="11.5" r="3.4" class="bend" />
      </g>
    </svg>
    <table>
      <thead><tr><th>Where</th><th class="number">m</th><th class="number">bends</th><th class="number">to work</th></tr></thead>
      <tbody>
        <tr v-for="(l, k) in way.legs" :key="k" data-leg>
          <td>{{ l.where }}<span class="quiet">, {{ SPACES[l.kind] ?? l.kind }}</span><br v-if="l.holes.length"><span v-if="l.holes.length" class="hole-said">through {{ l.holes.join(', ') }}</span></td>
          <td class="figure">{{ length(l.length_m) }}</td><td class="figure">{{ l.bends || '' }}</td>
          <td class="figure">{{ l.cost.toFixed(1) }}<span v-if="l.each !== 1" class="quiet"> ×{{ l.each }}</span></td>
        </tr>
      </tbody>
      <tfoot>
        <tr><th>Without slack</th><td class="figure">{{ length(way.length_m) }}</td><td class="figure">{{ way.bends }}</td><td class="figure">{{ way.cost.toFixed(1) }}</td></tr>
      </tfoot>
    </table>
    <p class="quiet">
      {{ way.pull_points ? `${way.pull_points} ${way.pull_points === 1 ? 'place' : 'places'} to pull from on the way` : 'Pulled in one go' }}; bends no tighter than {{ way.bend_radius_mm }} mm, pulled with {{ way.pull_n }} N at most. Work counts in metres of a free ceiling.
    </p>
    <p class="pins">
      <Button label="Lead it by a point" icon="pi pi-map-marker" size="small" text data-lead @click="pin" />
      <Button v-if="points.length" :label="points.length === 1 ? 'Let go of the point' : `Let go of ${points.length} points`" size="small" text @click="unpin" />
    </p>
    <label class="tick"><Checkbox :model-value="way.shortest" binary input-id="shortest" @update:model-value="shortest($event as boolean)" /> Fewest metres, whatever they cost to work</label>
  </section>
</template>

<style scoped>
.way {
  margin: 10px 0;
}
h3 {
  font: 600 12px var(--condensed);
  color: var(--granite);
}
.hole {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.bend {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.2;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  text-align: left;
  padding: 2px 0;
}
td {
  font: 400 12px/1.3 var(--condensed);
  border-top: 1px solid var(--granite-light);
  padding: 2px 0;
  vertical-align: top;
}
tfoot th,
tfoot td {
  border-top: 1px solid var(--granite);
}
.number,
td.figure {
  text-align: right;
  padding-left: 8px;
  white-space: nowrap;
}
td.figure {
  font: 400 11px/1.4 var(--mono);
}
.hole-said {
  color: var(--gorse-ink);
  font-size: 11px;
}
p {
  font: 400 11px/1.35 var(--condensed);
  margin: 4px 0;
}
.tick {
  display: flex;
  gap: 6px;
  align-items: center;
  font: 400 12px/1.3 var(--condensed);
}
</style>
