<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, SettingsSheet } from '@/api/types'
import { put } from '@/document/edits'
import { SECURITY } from '@/document/networks'
import { hasAir } from '@/document/kinds'
import { useDesign } from '@/document/store'

type WirelessName = ElementOf<'wireless_name'>
const props = defineProps<{ sheet: SettingsSheet }>()
const store = useDesign()
const names = computed(() => store.all('wireless_name'))
const networks = computed(() => store.all('network').map((n) => ({ value: n.id, label: `${n.name}, VLAN ${n.vlan}` })))
const sheetOf = (id: string) => props.sheet.names.find((n) => n.id === id)
const BANDS = ['2.4', '5', '6'].map((b) => ({ value: b, label: b }))

const chosen = computed(() => names.value.find((n) => n.id === store.selection?.id) ?? null)
const points = computed(() => store.all('device').filter((d) => hasAir(store.catalogue, d) && d.state !== 'retire').map((d) => ({ value: d.id, label: d.name })))
const STEERING = [{ value: 'rule' as const, label: 'by rule' }, { value: 'yes' as const, label: 'to 5 GHz' }, { value: 'no' as const, label: 'nobody' }]
const steers = (n: WirelessName) => (n.steering === null ? 'rule' : n.steering ? 'yes' : 'no')
const DTIMS = [{ value: 0, label: 'by rule' }, ...[1, 2, 3, 5, 10].map((v) => ({ value: v, label: String(v) }))]
const RATES = [{ value: 0, label: 'by rule' }, ...[1, 6, 12].map((v) => ({ value: v, label: `${v} Mb/s` }))]
const LIMITS = [{ value: 0, label: 'no limit' }, ...[1, 2, 5, 10, 20, 50, 100].map((v) => ({ value: v, label: `${v} Mb/s` }))]
function hour(name: WirelessName, field: 'from_hour' | 'to_hour', event: Event): void {
  const value = (event.target as HTMLInputElement).value || null
  set(name, { [field]: value, ...(value ? {} : { from_hour: null, to_hour: null }) })
}

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
      bands: ['2.4', '5'], security: 'wpa3_wpa2', client_isolation: false, fast_transition: null, access_points: [], steering: null, dtim: null, lowest_rate_mbps: null, limit_mbps: null, from_hour: null, to_hour: null,
    }),
  ])
}
</script>

<template>
  <table class="ledger">
    <thead><tr><th>Wireless name</th><th>Network</th><th>Bands</th><th>Security</th><th>Isolated</th><th>Fast roam</th><th>Why</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
    <tbody>
      <tr v-for="n in names" :key="n.id" :class="{ chosen: store.selection?.id === n.id }" :data-name="n.id" tabindex="0" @click="store.selection = { kind: 'wireless_name', id: n.id }" @keydown.enter.self="store.selection = { kind: 'wireless_name', id: n.id }">
        <td><InputText :model-value="n.ssid" size="small" maxlength="32" class="ssid" :aria-label="`Wireless name ${n.ssid}`" @change="setSsid(n, $event)" /></td>
        <td><Choice :model-value="n.network" :options="networks" class="net" :aria-label="`Network of ${n.ssid}`" @update:model-value="set(n, { network: $event })" /></td>
        <td><MultiSelect :model-value="n.bands" :options="BANDS" option-label="label" option-value="value" size="small" class="bands" :aria-label="`Bands of ${n.ssid}`" @update:model-value="$event.length && set(n, { bands: $event })" /></td>
        <td><Choice :model-value="n.security" :options="SECURITY" class="sec" :aria-label="`Security of ${n.ssid}`" @update:model-value="set(n, { security: $event })" /></td>
        <td><Checkbox :model-value="n.client_isolation" binary :aria-label="`Client isolation on ${n.ssid}`" @update:model-value="set(n, { client_isolation: $event as boolean })" /></td>
        <td><Checkbox :model-value="sheetOf(n.id)?.fast_transition ?? n.fast_transition ?? false" binary :aria-label="`Fast transition on ${n.ssid}`" @update:model-value="set(n, { fast_transition: $event as boolean })" /><button v-if="n.fast_transition !== null" type="button" class="plain hand" :aria-label="`by hand ×: fast transition on ${n.ssid} goes by the profile again`" @click.stop="set(n, { fast_transition: null })">by hand ×</button></td>
        <td class="why">{{ sheetOf(n.id)?.reason }}</td>
        <td><Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${n.ssid}`" @click="store.commit(`Remove ${n.ssid}`, [{ op: 'remove', kind: 'wireless_name', id: n.id }])" /></td>
      </tr>
    </tbody>
  </table>
  <div v-if="chosen" class="more" data-testid="name-more">
    <b>{{ chosen.ssid }}</b>
    <label>On <MultiSelect :model-value="[...chosen.access_points]" :options="points" option-label="label" option-value="value" size="small" placeholder="every access point" filter class="points" :aria-label="`Access points of ${chosen.ssid}`" @update:model-value="set(chosen, { access_points: $event.length === points.length ? [] : $event })" /></label>
    <label>Steers <Choice :model-value="steers(chosen)" :options="STEERING" :aria-label="`Steering of ${chosen.ssid}`" @update:model-value="set(chosen, { steering: $event === 'rule' ? null : $event === 'yes' })" /></label>
    <label>DTIM <Choice :model-value="chosen.dtim ?? 0" :options="DTIMS" :aria-label="`DTIM of ${chosen.ssid}`" @update:model-value="set(chosen, { dtim: $event || null })" /></label>
    <label>Lowest rate <Choice :model-value="chosen.lowest_rate_mbps ?? 0" :options="RATES" :aria-label="`Lowest rate of ${chosen.ssid}`" @update:model-value="set(chosen, { lowest_rate_mbps: ($event || null) as WirelessName['lowest_rate_mbps'] })" /></label>
    <label>Each client at most <Choice :model-value="chosen.limit_mbps ?? 0" :options="LIMITS" :aria-label="`Limit of ${chosen.ssid}`" @update:model-value="set(chosen, { limit_mbps: $event || null })" /></label>
    <label>From <input type="time" :value="chosen.from_hour ?? ''" :aria-label="`${chosen.ssid} is on from`" @change="hour(chosen, 'from_hour', $event)" /></label>
    <label>to <input type="time" :value="chosen.to_hour ?? ''" :aria-label="`${chosen.ssid} is on to`" @change="hour(chosen, 'to_hour', $event)" /></label>
    <span v-if="(sheetOf(chosen.id)?.on_air?.length ?? 1) > 1" class="quiet" data-on-air>On the air as {{ sheetOf(chosen.id)!.on_air!.map((b) => b.ssid).join(', ') }}.</span>
    <span class="quiet">{{ sheetOf(chosen.id)?.hours ? `On from ${sheetOf(chosen.id)?.hours}.` : 'Always on.' }} DTIM {{ sheetOf(chosen.id)?.dtim }}, {{ sheetOf(chosen.id)?.lowest_rate_mbps }} Mb/s, {{ sheetOf(chosen.id)?.everywhere ? 'every access point' : `${sheetOf(chosen.id)?.access_points?.length} access points` }}.</span>
  </div>
  <p v-else-if="names.length" class="quiet">Press a name for the access points it is on, its hours, limits and rates.</p>
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
.hand {
  margin-left: 6px;
  font: 400 12px var(--condensed);
  color: var(--heather);
}
.add {
  margin: 10px 0 14px;
}
.more {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin: 10px 0;
  padding: 8px 10px;
  border: 1px solid var(--granite-light);
}
.more label {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
}
.more input {
  font: 400 13px var(--mono);
  min-height: 30px;
  border: 1px solid var(--granite-mid);
  background: var(--paper);
  color: var(--ink);
  color-scheme: light dark;
}
@media (max-width: 1000px), (pointer: coarse) {
  .more input {
    min-height: 44px;
  }
}
.points {
  width: 190px;
}
</style>
