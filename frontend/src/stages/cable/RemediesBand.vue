<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Change, Remedy, RunVerdict } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import SideCard from '@/controls/SideCard.vue'
import { useDesign } from '@/document/store'
import { inUnits, length, signed, speed } from '@/document/units'

/** What would mend a run that does not do, side by side: the way piece by piece, then what it takes and costs. */
const props = defineProps<{ run: RunVerdict }>()
const store = useDesign()
const open = ref(false)
watch(() => props.run.device, () => (open.value = false))
const { answer } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/remedies', { params: { path: { project_id }, query: { device: props.run.device } } })),
  { wanted: () => open.value, about: () => props.run.device },
)
const found = computed(() => (answer.value?.device === props.run.device ? answer.value : null))
const metresMore = (m: number) => `${m > 0 ? '+' : m < 0 ? '\u2212' : ''}${length(Math.abs(m), 0)}`
const slower = (r: Remedy) => r.speed_mbps < (found.value?.wanted_mbps ?? 0)
/** A bar is as long as the piece may be. */
const share = (p: Remedy['pieces'][number]) => `${Math.min(100, p.limit_m ? (100 * p.length_m) / p.limit_m : 100)}%`

function take(remedy: Remedy): void {
  open.value = false
  store.commit(`${remedy.label}: ${props.run.name}`, remedy.changes as Change[])
}
</script>

<template>
  <section class="band" :aria-label="`What would mend the run of ${run.name}`" data-testid="remedies">
    <header>
      <span class="head"><strong>{{ run.name }}</strong> {{ inUnits(run.reason) }}</span>
      <Button :label="open ? 'Close' : 'Compare what mends it'" :icon="open ? 'pi pi-times' : 'pi pi-arrows-h'" size="small" :text="open" :outlined="!open" data-compare @click="open = !open" />
    </header>
    <div v-if="open && found" class="side-cards cards" tabindex="0" role="list" :aria-label="`${found.remedies.length} ways`">
      <SideCard v-for="r in found.remedies" :key="r.label" class="remedy" :title="inUnits(r.label)" :tone="r.does ? 'good' : 'bad'" role="listitem" :data-remedy="r.label">
        <ol class="way">
          <li v-for="(p, k) in r.pieces" :key="k" :class="[p.medium, { over: !p.does }]">
            <span class="to">{{ p.to }}</span>
            <span class="figure">{{ p.medium === 'air' ? speed(p.speed_mbps) : `${length(p.length_m, 0)} of ${length(p.limit_m, 0)}` }}</span>
            <span class="track"><i :style="{ width: share(p) }" /></span>
          </li>
        </ol>
        <p v-if="r.lacks" class="not_met">{{ inUnits(r.lacks) }}</p>
        <dl>
          <dt>Speed</dt><dd class="figure" :class="{ near: slower(r) }">{{ r.speed_mbps ? speed(r.speed_mbps) : 'none sure' }}</dd>
          <template v-if="r.volts !== null && r.volts !== undefined"><dt>At the device</dt><dd class="figure">{{ r.volts.toFixed(1) }} V</dd></template>
          <dt>Cable</dt><dd class="figure">{{ metresMore(r.cable_m) }}</dd>
          <dt>Work</dt><dd class="figure">{{ signed(r.hours, 1) }} h</dd>
          <dt>Price with tax</dt><dd class="figure price">{{ signed(r.price, 0) }} {{ found.currency }}</dd>
        </dl>
        <p v-for="n in r.needs" :key="n" class="needs">Needs {{ inUnits(n) }}</p>
        <p v-for="s in r.spoils" :key="s" class="not_met">Brings: {{ inUnits(s) }}</p>
        <details v-if="r.hurts.length"><summary>{{ r.hurts.length === 1 ? 'One caution' : `${r.hurts.length} cautions` }}</summary><p v-for="h in r.hurts" :key="h">{{ inUnits(h) }}</p></details>
        <Button label="Take this" size="small" :outlined="!r.does" data-take :aria-label="`Take: ${r.label}`" @click="take(r)" />
      </SideCard>
      <p v-if="!found.remedies.length" class="quiet">Nothing that was tried mends it: {{ inUnits(found.reason) }}.</p>
    </div>
    <p v-else-if="open" class="quiet">Each is being worked out for this run.</p>
  </section>
</template>

<style scoped>
.band {
  border-top: 1px solid var(--granite-mid);
  background: var(--paper);
  padding: 4px 12px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
}
.head {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.cards {
  padding: 6px 0 8px;
  max-height: 46vh;
}
.remedy {
  flex: 0 0 236px;
  overflow-y: auto;
}
.way {
  list-style: none;
  margin: 0;
  padding: 0;
}
.way li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 6px;
  font: 400 11px/1.4 var(--condensed);
  margin-bottom: 3px;
}
.to {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.track {
  grid-column: 1 / -1;
  height: 5px;
  background: var(--granite-light);
}
.track i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.fibre .track i {
  background: var(--tarn);
}
.air .track i {
  background: repeating-linear-gradient(90deg, var(--heather) 0 5px, transparent 5px 9px);
}
.over .track i {
  background: var(--rust);
}
.needs {
  color: var(--gorse-ink);
}
details {
  font: 400 11px/1.35 var(--condensed);
}
</style>
