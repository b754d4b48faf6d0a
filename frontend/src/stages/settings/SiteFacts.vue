<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Floor, Site } from '@/api/types'
import { put } from '@/design/edits'
import { useDesign } from '@/design/store'
import NumberField from '../inspect/NumberField.vue'

const store = useDesign()
const site = computed(() => store.site)
const slabs = computed(() => Object.values(store.catalogue?.constructions ?? {}).filter((c) => c.kind === 'slab'))
const clients = computed(() => Object.values(store.catalogue?.clients ?? {}))

const DOMAINS = [{ value: 'europe', label: 'Europe' }, { value: 'americas', label: 'Americas' }]
const KINDS = [{ value: 'home', label: 'Home' }, { value: 'school', label: 'School' }, { value: 'business', label: 'Business' }]
const WIDTHS = [20, 40, 80].map((w) => ({ value: w, label: `${w} MHz` }))
const OVERHEADS = [
  { value: 'ceiling_void', label: 'Ceiling void' },
  { value: 'attic', label: 'Attic' },
  { value: 'joists', label: 'Through joists' },
  { value: 'raceway', label: 'Surface raceway' },
]
const SLAB_M = 0.3

function set(change: Partial<Site>, what: string): void {
  if (site.value) store.commit(what, [put('site', { ...site.value, ...change })])
}

function setSubnet(event: Event): void {
  const upstream = (event.target as HTMLInputElement).value.trim()
  if (upstream !== site.value?.upstream_subnet) set({ upstream_subnet: upstream }, 'Upstream subnet')
}

function setFloor(floor: Floor, change: Partial<Floor>): void {
  store.commit(`Floor ${floor.name}`, [put('floor', { ...floor, ...change })])
}

function setName(floor: Floor, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== floor.name) setFloor(floor, { name })
}

/** A floor on top of the highest one of the first building. */
function addFloor(): void {
  const building = store.all('building')[0]
  if (!building) return
  const own = store.all('floor').filter((f) => f.building === building.id).sort((a, b) => a.level - b.level)
  const top = own.at(-1)
  const level = top ? top.level + 1 : 0
  const floor: Floor = {
    id: store.nextId('floor', 'floor'), building: building.id, name: `Floor ${level}`, level,
    elevation_m: top ? Number((top.elevation_m + top.ceiling_height_m + SLAB_M).toFixed(2)) : 0,
    ceiling_height_m: top?.ceiling_height_m ?? 2.7, slab: top?.slab ?? 'floor-timber',
    overhead: top?.overhead ?? 'ceiling_void',
  }
  store.commit(`Add ${floor.name}`, [put('floor', floor)])
}
</script>

<template>
  <div v-if="site" class="facts">
    <label>Kind of site <Select :model-value="site.kind" :options="KINDS" option-label="label" option-value="value" size="small" fluid aria-label="Kind of site" @update:model-value="set({ kind: $event }, 'Kind of site')" /></label>
    <label>Radio domain <Select :model-value="site.domain" :options="DOMAINS" option-label="label" option-value="value" size="small" fluid aria-label="Radio domain" @update:model-value="set({ domain: $event }, 'Radio domain')" /></label>
    <label>Weakest client <Select :model-value="site.client" :options="clients" option-label="label" option-value="id" size="small" fluid aria-label="Weakest client" @update:model-value="set({ client: $event }, 'Weakest client')" /></label>
    <label>5 GHz width <Select :model-value="site.width_5ghz_mhz" :options="WIDTHS" option-label="label" option-value="value" size="small" fluid aria-label="5 GHz width" @update:model-value="set({ width_5ghz_mhz: $event }, '5 GHz width')" /></label>
    <NumberField label="Internet line" unit="plain" suffix=" Mb/s" :digits="0" :value="site.line_mbps" :min="1" :max="100000" @change="set({ line_mbps: $event }, 'Line')" />
    <label>Upstream router's subnet <InputText :model-value="site.upstream_subnet" size="small" maxlength="18" fluid class="figure" aria-label="Upstream router's subnet" @change="setSubnet" /></label>
    <NumberField label="Power kept free" unit="plain" suffix=" %" :digits="0" :value="Math.round(site.power_headroom * 100)" :min="0" :max="90" @change="set({ power_headroom: $event / 100 }, 'Power kept free')" />
    <NumberField label="Cords of a run, both ends" :value="site.cords_m" :min="0" :max="20" @change="set({ cords_m: $event }, 'Cords')" />
    <NumberField label="Slack at the device" :value="site.slack_device_m" :min="0" :max="20" @change="set({ slack_device_m: $event }, 'Slack')" />
    <NumberField label="Slack at the rack" :value="site.slack_rack_m" :min="0" :max="20" @change="set({ slack_rack_m: $event }, 'Slack')" />
  </div>
  <h2>Floors</h2>
  <table class="ledger">
    <thead><tr><th>Floor</th><th>Elevation</th><th>Ceiling height</th><th>Stands on</th><th>Cable overhead</th></tr></thead>
    <tbody>
      <tr v-for="f in store.floors" :key="f.id" :data-floor="f.id">
        <td><InputText :model-value="f.name" size="small" maxlength="120" :aria-label="`Name of ${f.name}`" @change="setName(f, $event)" /></td>
        <td class="short"><NumberField label="" :value="f.elevation_m" :min="-50" :max="200" @change="setFloor(f, { elevation_m: $event })" /></td>
        <td class="short"><NumberField label="" :value="f.ceiling_height_m" :min="1.6" :max="30" @change="setFloor(f, { ceiling_height_m: $event })" /></td>
        <td><Select :model-value="f.slab" :options="slabs" option-label="label" option-value="id" size="small" :aria-label="`Slab of ${f.name}`" @update:model-value="setFloor(f, { slab: $event })" /></td>
        <td><Select :model-value="f.overhead" :options="OVERHEADS" option-label="label" option-value="value" size="small" :aria-label="`Cable overhead on ${f.name}`" @update:model-value="setFloor(f, { overhead: $event })" /></td>
      </tr>
    </tbody>
  </table>
  <Button label="Add a floor" icon="pi pi-plus" size="small" outlined class="add" @click="addFloor" />
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 14px;
  margin-bottom: 20px;
}
.facts :deep(label) {
  font: 400 12px/1.4 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
}
.short {
  width: 104px;
}
.add {
  margin-top: 10px;
}
td {
  vertical-align: middle !important;
}
</style>
