<script setup lang="ts">
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Device } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'

/** The bays of a recorder or storage: which hold a disk, what those hold together, for how long recordings are kept. */
const props = defineProps<{ device: Device }>()
const store = useDesign()
const kept = computed(() => store.shown?.power.stores?.find((s) => s.device === props.device.id))
const KINDS: { value: NonNullable<Device['redundancy']> | 'firm'; label: string }[] = [
  { value: 'firm', label: 'as is usual here' }, { value: 'none', label: 'none stands in for another' }, { value: 'mirror', label: 'each disk twice' },
  { value: 'single', label: 'one for parity' }, { value: 'double', label: 'two for parity' },
]
const WIDE = 30
const bays = computed(() => Math.max(kept.value?.bays ?? 0, kept.value?.disks ?? 0))

function set(change: Partial<Device>, what: string): void {
  store.commit(`${what} of ${props.device.name}`, [put('device', { ...props.device, ...change })])
}
const setDisks = (n: number) => set({ disks: n }, 'Disks')
</script>

<template>
  <section v-if="kept" class="store" data-testid="store" aria-label="Disks">
    <svg :width="bays * WIDE + 4" height="40" role="group" :aria-label="`${kept.disks} disks in ${kept.bays} bays; press a bay to fill up to it`">
      <g v-for="n in bays" :key="n" class="bay" :class="{ over: n > kept.bays, full: n <= kept.disks, spare: n <= kept.disks && n > kept.disks - kept.spared }" role="button" tabindex="0" :aria-label="n === kept.disks ? `Take disk ${n} out` : `Disks up to bay ${n}`" @click="setDisks(n === kept.disks ? n - 1 : n)" @keydown.enter="setDisks(n === kept.disks ? n - 1 : n)">
        <rect :x="(n - 1) * WIDE + 2" y="2" :width="WIDE - 4" height="36" rx="2" />
        <path :d="`M${(n - 1) * WIDE + 8} 32h${WIDE - 16}`" />
      </g>
    </svg>
    <dl class="figures">
      <dt>Holds</dt><dd class="figure" data-figure="usable">{{ kept.usable_tb }} TB</dd>
      <template v-if="kept.cameras"><dt>Cameras, by day or night</dt><dd class="figure">{{ kept.cameras }}, {{ kept.mbps }} Mb/s</dd>
      <dt>Recordings kept</dt><dd class="figure" :class="kept.verdict" data-figure="days">{{ kept.days === null ? 'not at all' : `${Math.floor(kept.days!)} of ${kept.wanted_days} days` }}</dd></template>
    </dl>
    <label class="kind">Disks <Choice :model-value="device.redundancy ?? ('firm' as const)" :options="KINDS" fluid aria-label="How disks stand in for one another" @update:model-value="set({ redundancy: $event === 'firm' ? null : $event }, 'Disks')" /></label>
  </section>
</template>

<style scoped>
.store {
  margin: 4px 0 8px;
}
.bay {
  cursor: pointer;
}
.bay rect {
  fill: none;
  stroke: var(--granite-mid);
  stroke-width: 1.5;
  stroke-dasharray: 3 2;
}
.bay path {
  stroke: none;
}
.bay.full rect {
  fill: var(--heather-wash);
  stroke: var(--heather);
  stroke-dasharray: none;
}
.bay.spare rect {
  fill: var(--granite-light);
  stroke: var(--granite);
}
.bay.full path {
  stroke: var(--heather);
  stroke-width: 2;
}
.bay.over rect {
  stroke: var(--rust);
}
.kind {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
}
</style>
