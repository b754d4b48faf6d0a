<script setup lang="ts">
import Button from 'primevue/button'
import { computed, shallowRef } from 'vue'
import { useTold } from '@/answers/useTold'
import { api, taken } from '@/api/client'
import type { Measurement } from '@/api/types'
import { useDesign } from '@/document/store'
import { when } from '@/document/units'

/** Who is on what just now, and how busy and noisy the air is, beside what was planned. */
const store = useDesign()
const found = shallowRef<Measurement | null>(null)
const { wrong, told: ask } = useTold()
const path = () => ({ params: { path: { project_id: store.id } } })
const look = () => told(taken(api.GET('/api/projects/{project_id}/controller/measured', path())))
const keep = () => told(taken(api.POST('/api/projects/{project_id}/controller/measured', path())))
async function told(asked: Promise<Measurement>): Promise<void> {
  found.value = (await ask(asked)) ?? found.value
}
const MOST = 12
const radios = computed(() => [...(found.value?.radios ?? [])].sort((a, b) => b.busy - a.busy).slice(0, MOST))
const per = (share: number | null | undefined) => `${Math.round(100 * (share ?? 0))}%`
</script>

<template>
  <h3>As it is heard</h3>
  <p v-if="wrong" class="not_met">{{ wrong }}</p>
  <p class="quiet"><template v-if="found">{{ found.clients }} clients, {{ found.weak }} of them faint; measured just now. </template><Button :label="found ? 'Look again' : 'Who is on what, how busy, how noisy'" text size="small" data-measured @click="look" /><Button v-if="found" label="Keep it" text size="small" data-keep-air @click="keep" /></p>
  <p v-if="found?.kept" class="quiet" data-air-kept>Kept {{ found.kept === 1 ? 'once' : `${found.kept} times` }}, last {{ when(found.last_kept!) }}; of each radio the busiest of them is beside.</p>
  <table v-if="found" class="air" data-air>
    <thead><tr><th>Radio</th><th>Channel</th><th>Air in use | as planned</th><th v-if="found.kept">Busiest kept</th><th>Clients</th><th>Noise</th></tr></thead>
    <tbody>
      <tr v-for="r in radios" :key="`${r.name} ${r.band}`">
        <td><b>{{ r.name }}</b> {{ r.band }}</td><td class="figure">{{ r.channel }}</td>
        <td><span class="bar"><i :style="{ width: per(r.busy) }" /><u v-if="r.planned_busy !== null" :style="{ left: per(Math.min(1, r.planned_busy ?? 0)) }" /></span><span class="figure">{{ per(r.busy) }}</span></td>
        <td v-if="found.kept" class="figure" :title="r.most_at ? when(r.most_at) : ''">{{ r.most_busy == null ? '' : per(r.most_busy) }}</td>
        <td class="figure">{{ r.clients }}<span class="quiet"> of {{ r.planned_clients.toFixed(0) }}</span></td><td class="figure">{{ r.noise_dbm.toFixed(0) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="found && found.radios.length > radios.length" class="quiet">The {{ radios.length }} busiest of {{ found.radios.length }} radios; the mark is the busiest hour as planned.</p>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
.air {
  width: 100%;
  border-collapse: collapse;
  font: 400 12px/1.5 var(--condensed);
}
th {
  text-align: left;
  color: var(--granite);
  font: 600 11px/1.3 var(--condensed);
  padding-right: 8px;
}
td {
  padding: 1px 8px 1px 0;
  white-space: nowrap;
}
.bar {
  position: relative;
  display: inline-block;
  width: 84px;
  height: 9px;
  margin-right: 6px;
  background: var(--paper-deep);
}
.bar i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--tarn);
}
.bar u {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border-left: 2px solid var(--ink);
}
</style>
