<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { api, taken } from '@/api/client'
import { useProjectJob } from '@/answers/useJob'
import type { Change, Offer } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import { put, removal } from '@/document/edits'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** The plan beside other ways of doing the job, all of them really worked out. */
const store = useDesign()
const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/offers', { params: { path: { project_id } } })))
const offers = computed<Offer[] | null>(() => answer.value?.offers ?? null)
const { job, running, run, stop } = useProjectJob()
const POLICIES = [
  { policy: 'first_only', label: 'First coverage, one cable each' },
  { policy: 'second_everywhere', label: 'Second everywhere, 6A, spare pulled' },
]
const money = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 0 })
type Row = { label: string; of: (o: Offer) => number; say: (o: Offer) => string; moreIs: 'better' | 'worse' | '' }
const ROWS: Row[] = [
  { label: 'Access points', of: (o) => o.access_points, say: (o) => `${o.access_points}`, moreIs: '' },
  { label: 'Rooms as promised', of: (o) => o.rooms_met, say: (o) => `${o.rooms_met} of ${o.rooms_needed}`, moreIs: 'better' },
  { label: 'Primary coverage', of: (o) => o.rooms_first, say: (o) => `${o.rooms_first} of ${o.rooms_needed}`, moreIs: 'better' },
  { label: 'Secondary coverage', of: (o) => o.rooms_second, say: (o) => `${o.rooms_second} of ${o.rooms_second_needed}`, moreIs: 'better' },
  { label: 'Cable', of: (o) => o.cable_m, say: (o) => `${length(o.cable_m, 0)}, ${o.boxes} boxes`, moreIs: 'worse' },
  { label: 'Watts expected', of: (o) => o.expected_w, say: (o) => `${o.expected_w.toFixed(1)} W`, moreIs: 'worse' },
  { label: 'Free ports', of: (o) => o.ports_left, say: (o) => `${o.ports_left}`, moreIs: 'better' },
  { label: 'Work', of: (o) => o.hours, say: (o) => `${o.hours.toFixed(1)} h`, moreIs: 'worse' },
  { label: 'Fullest air in the busiest hour', of: (o) => 100 * o.busiest, say: (o) => `${Math.round(100 * o.busiest)} %`, moreIs: 'worse' },
  { label: 'Findings not met', of: (o) => o.not_met, say: (o) => `${o.not_met}`, moreIs: 'worse' },
  { label: 'Price with tax', of: (o) => o.total, say: (o) => `${money(o.total)} ${store.site?.currency ?? ''}`, moreIs: 'worse' },
]
const base = computed(() => offers.value?.[0])

function tone(row: Row, offer: Offer): string {
  if (!base.value || !offer.variant || !row.moreIs) return ''
  const gap = row.of(offer) - row.of(base.value)
  if (Math.abs(gap) < 0.05) return ''
  return gap > 0 === (row.moreIs === 'better') ? 'met' : 'not_met'
}

function gap(row: Row, offer: Offer): string {
  if (!base.value || !offer.variant) return ''
  const d = row.of(offer) - row.of(base.value)
  if (Math.abs(d) < 0.05) return 'the same'
  return `${d > 0 ? '+' : '−'}${Math.abs(d).toLocaleString('en', { maximumFractionDigits: 1 })}`
}

async function make(policy: string): Promise<void> {
  const done = await run('variant', { policy })
  if (!done?.result) return
  const { name, changes } = done.result
  store.commit(`Keep beside the plan: ${name}`, [put('variant', { id: store.nextId('variant', 'variant'), name, changes })])
}

/** The variant becomes the plan; as it no longer differs from it, it is not kept. */
function takeOver(offer: Offer): void {
  const variant = store.find('variant', offer.variant!)
  if (variant) store.commit(`Take over: ${offer.name}`, [...(variant.changes as unknown as Change[]), ...removal(store, 'variant', variant.id)])
}
</script>

<template>
  <p v-if="!offers" class="quiet">Working them out.</p>
  <table v-else class="ledger offers">
    <thead>
      <tr><th><span class="visually-hidden">What</span></th><th v-for="o in offers" :key="o.variant ?? ''" :data-offer="o.variant ?? 'plan'">{{ o.name }}</th></tr>
    </thead>
    <tbody>
      <tr v-for="row in ROWS" :key="row.label">
        <th scope="row">{{ row.label }}</th>
        <td v-for="o in offers" :key="o.variant ?? ''" :data-figure="row.label">
          <template v-if="!o.fits"><span class="figure">{{ row.say(o) }}</span> <span class="gap" :class="tone(row, o)">{{ gap(row, o) }}</span></template>
        </td>
      </tr>
      <tr>
        <th scope="row"><span class="visually-hidden">Take it</span></th>
        <td v-for="o in offers" :key="o.variant ?? ''">
          <p v-if="o.fits" class="not_met">It does not fit the plan any more: {{ o.fits }}</p>
          <template v-if="o.variant">
            <Button v-if="!o.fits" label="Take it over" size="small" @click="takeOver(o)" />
            <Button label="Drop it" size="small" text @click="store.commit(`Drop ${o.name}`, removal(store, 'variant', o.variant!))" />
          </template>
        </td>
      </tr>
    </tbody>
  </table>
  <div class="make">
    <JobProgress v-if="running" :job="job" what="Trying what it does" @stop="stop" />
    <template v-else>
      <span class="quiet">Lay beside the plan:</span>
      <Button v-for="p in POLICIES" :key="p.policy" :label="p.label" size="small" outlined :data-policy="p.policy" @click="make(p.policy)" />
    </template>
  </div>
</template>

<style scoped>
.offers th[scope='row'] {
  position: static;
  font: 400 13px var(--sans);
  width: 170px;
}
.offers thead th {
  font: 600 13px var(--sans);
  color: var(--ink);
}
.offers tbody tr:nth-last-child(2) td {
  font-size: 15px;
}
.gap {
  margin-left: 8px;
  font: 500 12px var(--mono);
  color: var(--granite);
}
.make {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}
</style>
