<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import type { ElementOf } from '@/api/types'
import Offered from '@/controls/Offered.vue'
import Stepper from '@/controls/Stepper.vue'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import ToolButton from './ToolButton.vue'

/** Where the line comes in, where nothing is drilled, and what comes later. */
defineProps<{ floor: string }>()
type Zone = ElementOf<'zone'>
const store = useDesign()
const entry = computed(() => store.all('line_entry')[0])
const reserves = computed(() => new Map((store.shown?.brief.reserves ?? []).map((r) => [r.zone, r])))
const COUNTS: [keyof Zone & ('access_points' | 'outlets' | 'cameras'), string][] = [['access_points', 'access points'], ['outlets', 'outlets'], ['cameras', 'cameras']]

function set(zone: Zone, change: Partial<Zone>): void {
  store.commit(`Change ${zone.name}`, [put('zone', { ...zone, ...change })])
}

function rename(zone: Zone, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== zone.name) set(zone, { name })
}
</script>

<template>
  <div>
    <div class="take">
      <ToolButton of="line_entry" :label="entry ? 'Move the line’s entry' : 'Line comes in here'" />
      <ToolButton of="zone_no_drilling" /><ToolButton of="zone_later" />
    </div>
    <p v-if="entry" class="quiet">The line comes in on {{ store.find('floor', entry.floor)?.name }}.</p>
    <ul>
      <li v-for="z in store.all('zone')" :key="z.id" :class="{ chosen: store.selection?.id === z.id }" :data-zone-row="z.id">
        <header>
          <InputText :model-value="z.name" size="small" maxlength="120" fluid :aria-label="`Name of ${z.name}`" @focus="store.selection = { kind: 'zone', id: z.id }" @change="rename(z, $event)" />
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${z.name}`" @click="store.commit(`Remove ${z.name}`, removal(store, 'zone', z.id))" />
        </header>
        <p v-if="z.kind === 'no_drilling'" class="quiet">Nothing is drilled here; a run that passes is told.</p>
        <template v-else>
          <div v-for="[field, label] in COUNTS" :key="field" class="count"><span>{{ label }} to come</span><Stepper :value="z[field]" :most="200" :name="`${label} in ${z.name}`" @change="set(z, { [field]: $event })" /></div>
          <p v-if="reserves.get(z.id)" :class="reserves.get(z.id)!.verdict">
            keeps {{ reserves.get(z.id)!.ports }} ports, {{ reserves.get(z.id)!.watts.toFixed(1) }} W, {{ reserves.get(z.id)!.cables }} spare cables, {{ length(reserves.get(z.id)!.cable_m, 0) }} in all<template v-if="reserves.get(z.id)!.lacks">; lacks {{ reserves.get(z.id)!.lacks }}</template>
          </p>
          <Offered :id="`brief-later-${z.id}`" />
        </template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 0 0 6px;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--granite-light);
  padding: 6px 6px 8px;
  font: 400 12px/1.4 var(--condensed);
}
li.chosen {
  background: var(--heather-wash);
}
header {
  display: flex;
}
.count {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 1px 0;
}
</style>
