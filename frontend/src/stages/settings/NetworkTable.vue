<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, SettingsSheet } from '@/api/types'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import Offered from '@/controls/Offered.vue'
import NumberField from '@/controls/NumberField.vue'

type Network = ElementOf<'network'>
const props = defineProps<{ sheet: SettingsSheet }>()
const store = useDesign()
const networks = computed(() => store.all('network'))
const sheetOf = (id: string) => props.sheet.networks.find((n) => n.id === id)
const PURPOSES = ['main', 'staff', 'pupils', 'tills', 'guest', 'devices', 'cameras', 'management', 'administrators'].map((p) => ({ value: p, label: p }))

function set(network: Network, change: Partial<Network>): void {
  store.commit(`Network ${network.name}`, [put('network', { ...network, ...change })])
}

function setText(network: Network, field: 'name' | 'subnet', event: Event): void {
  const value = (event.target as HTMLInputElement).value.trim()
  if (value && value !== network[field]) set(network, { [field]: value })
}

const ENDS = ['pool_first', 'pool_last'] as const
const byHand = (n: Network) => n.pool_first !== null || n.pool_last !== null
/** An end of the pool by its number in the subnet; emptied it is by rule again. */
function setEnd(n: Network, end: (typeof ENDS)[number], event: Event): void {
  const field = event.target as HTMLInputElement
  const value = field.value === '' ? null : Math.min(65534, Math.max(2, Math.round(Number(field.value) || 2)))
  if (value !== n[end]) set(n, { [end]: value })
}
function setMost(n: Network, event: Event): void {
  const text = (event.target as HTMLInputElement).value
  set(n, { limit_all_mbps: Number(text) > 0 ? Math.min(10_000, Number(text)) : null })
}

function add(): void {
  const taken = new Set(networks.value.map((n) => n.vlan))
  let vlan = 10
  while (taken.has(vlan)) vlan += 10
  const id = store.nextId('network', 'net')
  const first = !networks.value.length
  store.commit('Add network', [
    put('network', {
      id, name: first ? 'Main' : `Network ${vlan}`, purpose: first ? 'main' : 'devices', vlan,
      subnet: `192.168.${vlan}.0/24`, expected_clients: 20, client_isolation: false, reaches: [], shut: [], internet: null, lease_h: null, pool_first: null, pool_last: null, limit_all_mbps: null,
    }),
  ])
}
</script>

<template>
  <Offered v-if="!networks.length" id="settings-networks" class="offered" />
  <table v-else class="ledger">
    <thead><tr><th>Network</th><th>For</th><th>VLAN</th><th>Subnet</th><th>Pool</th><th>Lease</th><th>Clients</th><th title="what all of it together gets of the line, Mb/s">At most</th><th>Isolated</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
    <tbody>
      <tr v-for="n in networks" :key="n.id" :class="{ chosen: store.selection?.id === n.id }" :data-network="n.id">
        <td><InputText :model-value="n.name" size="small" maxlength="120" class="name" :aria-label="`Name of ${n.name}`" @change="setText(n, 'name', $event)" /></td>
        <td><Choice :model-value="n.purpose" :options="PURPOSES" :aria-label="`Purpose of ${n.name}`" @update:model-value="set(n, { purpose: $event })" /></td>
        <td class="vlan"><NumberField label="" :name="`VLAN of ${n.name}`" unit="plain" :digits="0" :value="n.vlan" :min="1" :max="4094" @change="set(n, { vlan: $event })" /></td>
        <td><InputText :model-value="n.subnet" size="small" maxlength="43" class="figure subnet" :aria-label="`Subnet of ${n.name}`" @change="setText(n, 'subnet', $event)" /></td>
        <td class="pool" :title="`${sheetOf(n.id)?.pool_first} to ${sheetOf(n.id)?.pool_last}${byHand(n) ? '' : ', by rule'}`">
          <span v-if="sheetOf(n.id)?.pool" class="ends">
            <InputText v-for="(end, k) in ENDS" :key="end" type="number" min="2" max="65534" size="small" class="figure end" :class="{ said: n[end] !== null }" :model-value="String(n[end] ?? sheetOf(n.id)!.pool![k])" :aria-label="`${k ? 'Last' : 'First'} address that ${n.name} gives out`" @change="setEnd(n, end, $event)" />
          </span>
          <span v-else class="quiet">by rule</span>
        </td>
        <td class="lease"><NumberField label="" :name="`Lease of ${n.name}, hours`" unit="plain" :digits="0" :value="sheetOf(n.id)?.lease_hours ?? 24" :min="1" :max="8760" @change="set(n, { lease_h: $event })" /></td>
        <td class="vlan"><NumberField label="" :name="`Clients expected in ${n.name}`" unit="plain" :digits="0" :value="n.expected_clients" :min="0" :max="5000" @change="set(n, { expected_clients: $event })" /></td>
        <td><InputText type="number" min="0.1" max="10000" step="any" size="small" class="figure end said" placeholder="line" :model-value="n.limit_all_mbps === null ? '' : String(n.limit_all_mbps)" :aria-label="`What all of ${n.name} together gets at most, Mb/s`" @change="setMost(n, $event)" /></td>
        <td><Checkbox :model-value="n.client_isolation" binary :aria-label="`Hosts of ${n.name} kept from one another`" @update:model-value="set(n, { client_isolation: $event as boolean })" /></td>
        <td><Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${n.name}`" @click="store.commit(`Remove ${n.name}`, removal(store, 'network', n.id))" /></td>
      </tr>
      <tr v-for="s in sheet.services" :key="s.service" :data-service="s.service">
        <td><b>{{ s.name }}</b></td>
        <td colspan="8">VLAN {{ s.vlan }}: {{ s.reason }}</td>
        <td></td>
      </tr>
    </tbody>
  </table>
  <Button label="Add a network" icon="pi pi-plus" size="small" outlined class="add" @click="add" />
</template>

<style scoped>
.offered {
  max-width: 520px;
}
.name {
  width: 104px;
}
.subnet {
  width: 126px;
}
.vlan {
  min-width: 56px;
}
.lease {
  min-width: 56px;
}
.ends {
  display: flex;
  gap: 3px;
}
.end {
  width: 50px;
  padding-inline: 6px;
  appearance: textfield;
}
.end::-webkit-inner-spin-button {
  appearance: none;
}
.end:not(.said) {
  color: var(--granite);
}
td,
th {
  padding-inline: 5px !important;
}
td {
  vertical-align: middle !important;
}
.add {
  margin: 10px 0 18px;
}
</style>
