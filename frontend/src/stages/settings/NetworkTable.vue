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

function add(): void {
  const taken = new Set(networks.value.map((n) => n.vlan))
  let vlan = 10
  while (taken.has(vlan)) vlan += 10
  const id = store.nextId('network', 'net')
  const first = !networks.value.length
  store.commit('Add network', [
    put('network', {
      id, name: first ? 'Main' : `Network ${vlan}`, purpose: first ? 'main' : 'devices', vlan,
      subnet: `192.168.${vlan}.0/24`, expected_clients: 20, client_isolation: false, reaches: [], shut: [], internet: null, lease_h: null,
    }),
  ])
}
</script>

<template>
  <Offered v-if="!networks.length" id="settings-networks" class="offered" />
  <table v-else class="ledger">
    <thead><tr><th>Network</th><th>For</th><th>VLAN</th><th>Subnet</th><th>Pool</th><th>Lease</th><th>Clients</th><th>Isolated</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
    <tbody>
      <tr v-for="n in networks" :key="n.id" :class="{ chosen: store.selection?.id === n.id }" :data-network="n.id">
        <td><InputText :model-value="n.name" size="small" maxlength="120" class="name" :aria-label="`Name of ${n.name}`" @change="setText(n, 'name', $event)" /></td>
        <td><Choice :model-value="n.purpose" :options="PURPOSES" :aria-label="`Purpose of ${n.name}`" @update:model-value="set(n, { purpose: $event })" /></td>
        <td class="vlan"><NumberField label="" :name="`VLAN of ${n.name}`" unit="plain" :digits="0" :value="n.vlan" :min="1" :max="4094" @change="set(n, { vlan: $event })" /></td>
        <td><InputText :model-value="n.subnet" size="small" maxlength="43" class="figure subnet" :aria-label="`Subnet of ${n.name}`" @change="setText(n, 'subnet', $event)" /></td>
        <td class="figure pool">{{ sheetOf(n.id)?.pool_first.split('.').slice(-1)[0] }} to {{ sheetOf(n.id)?.pool_last.split('.').at(-1) }}</td>
        <td class="lease"><NumberField label="" :name="`Lease of ${n.name}, hours`" unit="plain" :digits="0" :value="sheetOf(n.id)?.lease_hours ?? 24" :min="1" :max="8760" @change="set(n, { lease_h: $event })" /></td>
        <td class="vlan"><NumberField label="" :name="`Clients expected in ${n.name}`" unit="plain" :digits="0" :value="n.expected_clients" :min="0" :max="5000" @change="set(n, { expected_clients: $event })" /></td>
        <td><Checkbox :model-value="n.client_isolation" binary :aria-label="`Hosts of ${n.name} kept from one another`" @update:model-value="set(n, { client_isolation: $event as boolean })" /></td>
        <td><Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${n.name}`" @click="store.commit(`Remove ${n.name}`, removal(store, 'network', n.id))" /></td>
      </tr>
      <tr v-for="s in sheet.services" :key="s.service" :data-service="s.service">
        <td><b>{{ s.name }}</b></td>
        <td colspan="7">VLAN {{ s.vlan }}: {{ s.reason }}</td>
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
  width: 112px;
}
.subnet {
  width: 138px;
}
.vlan {
  min-width: 66px;
}
.lease {
  min-width: 66px;
}
.pool {
  font-size: 12px;
  white-space: nowrap;
}
td {
  vertical-align: middle !important;
}
.add {
  margin: 10px 0 18px;
}
</style>
