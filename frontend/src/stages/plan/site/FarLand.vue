<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBeside } from '@/answers/useBeside'
import { api, taken } from '@/api/client'
import type { LandView } from '@/api/types'
import { useDesign } from '@/document/store'
import { length, speed, whole } from '@/document/units'
import FarFeed from './FarFeed.vue'
import { STATES } from './farWords'

/** All places together: each on a line of its own under one name, or all of them as one mesh. */
defineProps<{ drawn: boolean }>()
const emit = defineEmits<{ choose: [id: string]; draw: [feed: LandView['feed']] }>()
const store = useDesign()
const trouble = ref('')
const { answer: land } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/far/land', { params: { path: { project_id } } })),
  { wanted: () => store.all('far_point').length > 1, failed: (error) => !error.isOffline && (trouble.value = error.words) },
)
const per = (sum: number) => (land.value?.hectares ? `${whole(sum / land.value.hectares)} a hectare` : '')
const dearest = computed(() => Math.max(1, land.value?.cells_total ?? 0, land.value?.mesh_total ?? 0))
const both = computed(() =>
  land.value
    ? [
        { name: 'Cells of one name', once: land.value.cells_once, total: land.value.cells_total, left: land.value.cells_left },
        { name: 'One mesh', once: land.value.mesh_once, total: land.value.mesh_total, left: land.value.mesh_left },
      ]
    : [],
)
</script>

<template>
  <p v-if="trouble" role="alert" class="trouble">{{ trouble }}</p>
  <section v-if="land && land.rows.length > 1" class="land" aria-label="Cells or mesh" data-testid="far-land">
    <div class="both">
      <p v-for="b in both" :key="b.name">
        <strong>{{ b.name }}</strong>
        <span class="bar"><i class="once" :style="{ width: `${(100 * b.once) / dearest}%` }" /><i class="later" :style="{ width: `${(100 * (b.total - b.once)) / dearest}%` }" /></span>
        <span class="figure">{{ whole(b.total) }} {{ land.currency }}, {{ per(b.total) }}</span>
        <span v-if="b.left.length" class="not_met">does not reach {{ b.left.join(', ') }}</span>
        <span v-else class="met">reaches every place</span>
      </p>
      <p class="advice">{{ land.advice }}</p>
      <p class="quiet">A client is heard {{ length(land.reach_m, 0) }} off; {{ land.hectares.toFixed(1) }} ha together. Way round: {{ land.path.join(' \u2192 ') }}<template v-if="land.gaps.length">; silent {{ land.gaps.map((g) => `${length(g.gap_m, 0)} from ${g.start} to ${g.end}`).join(', ') }}</template>.</p>
    </div>
    <table>
      <thead><tr><th>Place</th><th>A line of its own</th><th class="n">Gives</th><th class="n">Over its years</th><th>In the mesh over</th><th class="n">Gives</th><th class="n">Over its years</th></tr></thead>
      <tbody>
        <tr v-for="r in land.rows" :key="r.point">
          <td><button type="button" class="plain link" @click="emit('choose', r.point)">{{ r.name }}</button></td>
          <td :class="r.cell_state === 'met' ? 'met' : r.cell_state === 'near' ? 'near' : 'not_met'">{{ r.cell ?? STATES.out }}</td>
          <td class="n figure">{{ r.cell ? speed(r.cell_mbps) : '' }}</td>
          <td class="n figure">{{ r.cell ? whole(r.cell_total) : '' }}</td>
          <td :class="{ not_met: !r.hops }">{{ r.hops ? `${r.over}, ${r.hops === 1 ? 'one hop' : 'two hops'}` : 'hears no other' }}</td>
          <td class="n figure" :class="{ not_met: r.hops && r.mesh_mbps < r.wanted_mbps }">{{ r.hops ? speed(r.mesh_mbps) : '' }}</td>
          <td class="n figure">{{ r.hops ? whole(r.mesh_total) : '' }}</td>
        </tr>
      </tbody>
    </table>
    <FarFeed v-if="land.feed" :feed="land.feed" :currency="land.currency" :drawn="drawn" @draw="emit('draw', $event ? land.feed : null)" @choose="emit('choose', $event)" />
  </section>
</template>

<style scoped>
.land {
  padding: 6px 12px 8px;
  border-top: 1px solid var(--granite-light);
  font-size: 12.5px;
}
.both p {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
  margin: 2px 0;
}
.both strong {
  flex: 0 0 130px;
}
.bar {
  display: flex;
  flex: 0 1 260px;
  height: 9px;
}
.bar i {
  height: 100%;
}
.once {
  background: var(--granite);
}
.later {
  background: var(--gorse);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 600;
  color: var(--granite);
}
th,
td {
  padding: 2px 8px 2px 0;
}
.n {
  text-align: right;
}
.met {
  color: var(--moss);
}
.near {
  color: var(--gorse-ink);
}
.trouble {
  color: var(--rust);
}
</style>
