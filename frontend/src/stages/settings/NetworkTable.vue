<script setup lang="ts">
import Button from 'primevue/button'
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
const PURPOSES = ['main', 'staff', 'guest', 'devices', 'cameras', 'management'].map((p) => ({ value: p, label: p }))

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
      subnet: `192.168.${vlan}.0/24`, expected_clients: 20, client_isolation: false, reaches: [],
    }),
  ])
}

function reach(from: string, to: string): boolean {
  return sheetOf(from)?.reaches.includes(to) ?? false
}
</script>

<template>
  <Offered v-if="!networks.length" id="settings-networks" class="offered" />
  <table v-else class="ledger">
    <thead><tr><th>Network</th><th>For</th><th>VLAN</th><th>Subnet</th><th>Pool</th><th class="number">Lease</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
    <tbody>
      <tr v-for="n in networks" :key="n.id" :class="{ chosen: store.selection?.id === n.id }" :data-network="n.id">
        <td><InputText :model-value="n.name" size="small" maxlength="120" class="name" :aria-label="`Name of ${n.name}`" @change="setText(n, 'name', $event)" /></td>
        <td><Choice :model-value="n.purpose" :options="PURPOSES" :aria-label="`Purpose of ${n.name}`" @update:model-value="set(n, { purpose: $event })" /></td>
        <td class="vlan"><NumberField label="" :name="`VLAN of ${n.name}`" unit="plain" :digits="0" :value="n.vlan" :min="1" :max="4094" @change="set(n, { vlan: $event })" /></td>
        <td><InputText :model-value="n.subnet" size="small" maxlength="18" class="figure subnet" :aria-label="`Subnet of ${n.name}`" @change="setText(n, 'subnet', $event)" /></td>
        <td class="figure pool">{{ sheetOf(n.id)?.pool_first }} to {{ sheetOf(n.id)?.pool_last.split('.').at(-1) }}</td>
        <td class="number">{{ sheetOf(n.id)?.lease_hours }} h</td>
        <td><Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${n.name}`" @click="store.commit(`Remove ${n.name}`, removal(store, 'network', n.id))" /></td>
      </tr>
      <tr v-for="s in sheet.services" :key="s.service" :data-service="s.service">
        <td><b>{{ s.name }}</b></td>
        <td colspan="5">VLAN {{ s.vlan }}: {{ s.reason }}</td>
        <td></td>
      </tr>
    </tbody>
  </table>
  <Button label="Add a network" icon="pi pi-plus" size="small" outlined class="add" @click="add" />
  <section v-if="networks.length">
    <h2>Who may open a connection to whom</h2>
    <table class="reach">
      <thead><tr><th>from, to</th><th v-for="n in networks" :key="n.id">{{ n.name }}</th><th>Internet</th></tr></thead>
      <tbody>
        <tr v-for="a in networks" :key="a.id">
          <th>{{ a.name }}</th>
          <td v-for="b in networks" :key="b.id" :class="{ yes: reach(a.id, b.id) }">{{ reach(a.id, b.id) ? 'yes' : 'no' }}</td>
          <td :class="{ yes: sheetOf(a.id)?.internet }">{{ sheetOf(a.id)?.internet ? 'yes' : 'no' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.offered {
  max-width: 520px;
}
.name {
  width: 120px;
}
.subnet {
  width: 138px;
}
.vlan {
  width: 74px;
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
.reach {
  border-collapse: collapse;
  margin-top: 6px;
}
.reach th {
  font: 600 12px var(--condensed);
  padding: 3px 10px;
  text-align: left;
}
.reach td {
  border: 1px solid var(--granite-light);
  padding: 3px 10px;
  color: var(--granite);
}
.reach td.yes {
  color: var(--moss);
  font-weight: 600;
  background: var(--paper-deep);
}
</style>
