<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, SettingsSheet } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'

type WirelessName = ElementOf<'wireless_name'>
const props = defineProps<{ sheet: SettingsSheet }>()
const store = useDesign()
const names = computed(() => store.all('wireless_name'))
const networks = computed(() => store.all('network').map((n) => ({ value: n.id, label: `${n.name}, VLAN ${n.vlan}` })))
const sheetOf = (id: string) => props.sheet.names.find((n) => n.id === id)
const BANDS = ['2.4', '5', '6'].map((b) => ({ value: b, label: b }))
const SECURITY = [
  { value: 'wpa3_wpa2', label: 'WPA3, WPA2 fallback' },
  { value: 'wpa3', label: 'WPA3' },
  { value: 'wpa2', label: 'WPA2' },
  { value: 'enterprise', label: 'Enterprise' },
  { value: 'open_portal', label: 'Open, portal' },
]

function set(name: WirelessName, change: Partial<WirelessName>): void {
  store.commit(`Wireless name ${name.ssid}`, [put('wireless_name', { ...name, ...change })])
}

function setSsid(name: WirelessName, event: Event): void {
  const ssid = (event.target as HTMLInputElement).value.trim()
  if (ssid && ssid !== name.ssid) set(name, { ssid })
}

function add(): void {
  const id = store.nextId('wireless_name', 'ssid')
  store.commit('Add wireless name', [
    put('wireless_name', {
      id, network: networks.value[0]!.value, ssid: `${store.name.slice(0, 20)} ${names.value.length + 1}`,
      bands: ['2.4', '5'], security: 'wpa3_wpa2', client_isolation: false, fast_transition: true,
    }),
  ])
}
</script>

<template>
  <table class="ledger">
    <thead><tr><th>Wireless name</th><th>Network</th><th>Bands</th><th>Security</th><th>Isolated</th><th>Fast roam</th><th>Why</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
    <tbody>
      <tr v-for="n in names" :key="n.id" :class="{ chosen: store.selection?.id === n.id }" :data-name="n.id">
        <td><InputText :model-value="n.ssid" size="small" maxlength="32" class="ssid" :aria-label="`Wireless name ${n.ssid}`" @change="setSsid(n, $event)" /></td>
        <td><Choice :model-value="n.network" :options="networks" class="net" :aria-label="`Network of ${n.ssid}`" @update:model-value="set(n, { network: $event })" /></td>
        <td><MultiSelect :model-value="n.bands" :options="BANDS" option-label="label" option-value="value" size="small" class="bands" :aria-label="`Bands of ${n.ssid}`" @update:model-value="$event.length && set(n, { bands: $event })" /></td>
        <td><Choice :model-value="n.security" :options="SECURITY" class="sec" :aria-label="`Security of ${n.ssid}`" @update:model-value="set(n, { security: $event })" /></td>
        <td><Checkbox :model-value="n.client_isolation" binary :aria-label="`Client isolation on ${n.ssid}`" @update:model-value="set(n, { client_isolation: $event as boolean })" /></td>
        <td><Checkbox :model-value="n.fast_transition" binary :aria-label="`Fast transition on ${n.ssid}`" @update:model-value="set(n, { fast_transition: $event as boolean })" /></td>
        <td class="why">{{ sheetOf(n.id)?.reason }}</td>
        <td><Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${n.ssid}`" @click="store.commit(`Remove ${n.ssid}`, [{ op: 'remove', kind: 'wireless_name', id: n.id }])" /></td>
      </tr>
    </tbody>
  </table>
  <Button label="Add a wireless name" icon="pi pi-plus" size="small" outlined class="add" :disabled="!networks.length" @click="add" />
  <p class="quiet">Keys are made when the controller is set up. They are never kept in the plan or its exports.</p>
</template>

<style scoped>
.ssid {
  width: 140px;
}
.net,
.sec {
  width: 130px;
}
.bands {
  width: 84px;
}
.why {
  font: 400 12px/1.35 var(--condensed);
  color: var(--granite);
  min-width: 130px;
}
td {
  vertical-align: middle !important;
}
.add {
  margin: 10px 0 14px;
}
</style>
