<script setup lang="ts">
import Button from 'primevue/button'
import { computed, shallowRef } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import type { EquipmentRoom, JobKinds, RackSpot } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'

/** Where a rack could stand: rooms side by side, matter by matter, the best first. */
const props = defineProps<{ room: EquipmentRoom }>()
const emit = defineEmits<{ close: [] }>()
const store = useDesign()
const { job, running, run, stop } = useProjectJob()
const found = shallowRef<JobKinds['rack_places']['result'] | null>(null)
const HEADS: Record<string, string> = { cable: 'Cable', heat: 'Heat', noise: 'Heard', socket: 'Socket', panel: 'Panel', water: 'Water', wall: 'Wall', lock: 'Lock' }
const matters = computed(() => found.value?.places[0]?.judged.map((j) => j.matter) ?? [])
const tone = (bad: number) => (bad >= 0.75 ? 'bad' : bad >= 0.25 ? 'middling' : 'good')

async function look(): Promise<void> {
  const done = await run('rack_places', { room: props.room.id })
  if (done?.result) found.value = done.result
}

function move(spot: RackSpot): void {
  store.commit(`Move ${props.room.name} to ${spot.name}`, spot.changes as Parameters<typeof store.commit>[1])
  emit('close')
}
void look()
</script>

<template>
  <section class="places" :aria-label="`Places for ${room.name}`" data-testid="rack-places">
    <header>
      <h3>Where {{ room.name }} could stand</h3>
      <span v-if="found" class="quiet">100 where nothing speaks against it; weights stand under Rules and figures</span>
      <Button icon="pi pi-times" text size="small" aria-label="Close" @click="emit('close')" />
    </header>
    <JobProgress v-if="running" :job="job" what="Rooms tried" @stop="stop" />
    <div v-if="found" class="scroll">
      <table>
        <thead><tr><th>Room</th><th>Score</th><th v-for="m in matters" :key="m">{{ HEADS[m] }}</th><th /></tr></thead>
        <tbody>
          <tr v-for="p in found.places" :key="p.space" :class="{ here: p.here }" :data-spot="p.space">
            <td><strong>{{ p.name }}</strong><br><span class="quiet">{{ p.floor_name }}</span></td>
            <td><span class="figure score">{{ Math.round(p.score) }}</span><span class="bar"><i :style="{ width: `${p.score}%` }" /></span></td>
            <td v-for="j in p.judged" :key="j.matter" :class="tone(j.bad)">{{ inUnits(j.said) }}<span class="bar"><i :style="{ width: `${Math.round(100 * (1 - j.bad))}%` }" /></span></td>
            <td><span v-if="p.here" class="quiet">it is here</span><Button v-else label="Move here" size="small" text :aria-label="`Move ${room.name} to ${p.name}`" @click="move(p)" /></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="found?.without.length" class="quiet">No wall is clear for its frame in {{ found.without.join(', ') }}.</p>
  </section>
</template>

<style scoped>
.places {
  border: 1px solid var(--heather);
  border-radius: 3px;
  padding: 6px 10px 8px;
  margin: 4px 0 10px;
}
header {
  display: flex;
  align-items: baseline;
  gap: 12px;
}
header > :last-child {
  margin-left: auto;
}
h3 {
  font-size: 13px;
}
.scroll {
  overflow: auto;
  max-height: 330px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  position: sticky;
  top: 0;
  background: var(--paper);
  text-align: left;
  font: 600 11px/1.3 var(--condensed);
  color: var(--granite);
  padding: 3px 6px;
}
td {
  font: 400 12px/1.25 var(--condensed);
  padding: 4px 6px;
  border-top: 1px solid var(--granite-light);
  vertical-align: top;
}
.score {
  font-size: 14px;
  font-weight: 600;
}
.bar {
  display: block;
  height: 4px;
  width: 58px;
  background: var(--granite-light);
  margin-top: 3px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--moss-line);
}
.middling .bar i {
  background: var(--gorse);
}
.bad .bar i {
  background: var(--rust);
  min-width: 3px;
}
.bad {
  color: var(--rust);
}
.here td {
  background: var(--heather-wash);
}
</style>
