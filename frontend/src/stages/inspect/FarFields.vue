<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, ref } from 'vue'
import type { FarPoint } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import { useDesign } from '@/document/store'
import { FAR_KINDS, FAR_POWERS, LANDS, readRows } from '@/stages/plan/site/farWords'
import { useFields } from './useFields'

/** A place on the land: what is asked for there, and what lies between it and its rack. */
const props = defineProps<{ point: FarPoint }>()
const store = useDesign()
const { set, setName } = useFields('far_point', () => props.point)
const wrong = ref('')
const NEAREST = '.nearest' // no rack is called so
const racks = computed(() => [{ value: NEAREST, label: 'The nearest rack' }, ...store.all('equipment_room').map((r) => ({ value: r.id, label: r.name }))])
const NOT_TOLD = '.not-told'
const panels = computed(() => [{ value: NOT_TOLD, label: 'Not told' }, ...store.all('panel').map((p) => ({ value: p.id, label: p.name }))])
const COUNTED = [
  { field: 'clients', label: 'Clients', most: 5000 },
  { field: 'cameras', label: 'Cameras', most: 200 },
  { field: 'doors', label: 'Doors', most: 200 },
  { field: 'sensors', label: 'Sensors', most: 5000 },
] as const
function setProfile(event: Event): void {
  takeProfile((event.target as HTMLTextAreaElement).value)
}
const cell = computed(() => [props.point.cell_dbm, props.point.cell_db].filter((v) => v !== null && v !== undefined).join(' '))
function setCell(event: Event): void {
  takeCell((event.target as HTMLTextAreaElement).value)
}
function takeCell(text: string): void {
  const read = readRows(text, 1, 2)
  if ('wrong' in read) return void (wrong.value = read.wrong)
  const [cell_dbm = null, cell_db = null] = [0, 1].map((k) => middle(read.rows.flatMap((r) => (r[k] === undefined ? [] : [r[k]]))))
  const off = (cell_dbm ?? -90) > -30 || (cell_dbm ?? -90) < -150 || Math.abs(cell_db ?? 0) > 30
  wrong.value = off ? `${cell_dbm} dBm${cell_db === null ? '' : `, ${cell_db} dB`}: a level is from -150 to -30 dBm, a quality from -30 to 30 dB` : ''
  if (!off && (cell_dbm !== (props.point.cell_dbm ?? null) || cell_db !== (props.point.cell_db ?? null))) set({ cell_dbm, cell_db }, 'Cellular')
}
function middle(values: number[]): number | null {
  const sorted = [...values].sort((a, b) => a - b)
  const half = Math.floor(sorted.length / 2)
  return sorted.length === 0 ? null : sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2
}
async function fromFile(event: Event, take: (text: string) => void): Promise<void> {
  const chosen = event.target as HTMLInputElement
  const text = await chosen.files?.[0]?.text()
  chosen.value = '' // the same one may be chosen again
  if (text !== undefined) take(text)
}
function takeProfile(text: string): void {
  const read = readRows(text, 2, 2)
  if ('wrong' in read) return void (wrong.value = read.wrong)
  wrong.value = ''
  const profile = [...read.rows].sort((a, b) => a[0]! - b[0]!) as [number, number][]
  if (JSON.stringify(profile) !== JSON.stringify(props.point.profile ?? [])) set({ profile }, 'Profile')
}
function setTrees(event: Event): void {
  const read = readRows((event.target as HTMLTextAreaElement).value, 3, 4)
  if ('wrong' in read) return void (wrong.value = read.wrong)
  const bad = read.rows.findIndex((r) => r[1]! <= r[0]!)
  wrong.value = bad < 0 ? '' : `Row ${bad + 1}: trees stand from one distance to a larger one`
  const trees = read.rows.map((r) => [r[0]!, r[1]!, r[2]!, r[3] ?? null] as [number, number, number, number | null])
  if (bad < 0 && JSON.stringify(trees) !== JSON.stringify(props.point.trees ?? [])) set({ trees }, 'Trees')
}
const rows = (found: readonly (readonly (number | null)[])[] | undefined) => (found ?? []).map((r) => r.filter((v) => v !== null).join(' ')).join('\n')
</script>

<template>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="point.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <label>It is <Choice :model-value="point.what ?? 'outbuilding'" :options="FAR_KINDS" fluid aria-label="What it is" @update:model-value="set({ what: $event }, 'Kind')" /></label>
    <label>Power there <Choice :model-value="point.power ?? 'none'" :options="FAR_POWERS" fluid aria-label="Power there" @update:model-value="set({ power: $event }, 'Power')" /></label>
    <label v-if="point.power === 'socket' && panels.length > 1" class="wide">Its socket hangs on <Choice :model-value="point.panel ?? NOT_TOLD" :options="panels" fluid aria-label="Its socket hangs on" @update:model-value="set({ panel: $event === NOT_TOLD ? null : $event }, 'Panel')" /></label>
    <label class="wide">Fed from <Choice :model-value="point.room ?? NEAREST" :options="racks" fluid aria-label="Fed from" @update:model-value="set({ room: $event === NEAREST ? null : $event }, 'Rack')" /></label>
    <NumberField label="Antenna at the rack" :value="point.room_mast_m ?? 4" :min="0" :max="60" @change="set({ room_mast_m: $event }, 'Antenna at the rack')" />
    <NumberField label="Antenna there" :value="point.mast_m ?? 3" :min="0" :max="60" @change="set({ mast_m: $event }, 'Antenna there')" />
    <NumberField label="Ground there" :value="point.ground_m ?? 0" :min="-50" :max="200" @change="set({ ground_m: $event }, 'Ground')" />
    <label>Between lies <Choice :model-value="point.land ?? 'lawn'" :options="LANDS" fluid aria-label="Between lies" @update:model-value="set({ land: $event }, 'Land')" /></label>
    <NumberField v-for="c in COUNTED" :key="c.field" :label="c.label" unit="plain" :digits="0" :value="point[c.field] ?? 0" :min="0" :max="c.most" @change="set({ [c.field]: $event }, c.label)" />
    <NumberField label="Mb/s, 0 as counted" unit="plain" :digits="1" :value="point.mbps ?? 0" :min="0" :max="100000" @change="set({ mbps: $event || null }, 'Demand')" />
    <NumberField label="Delay in ms, 0 any" unit="plain" :digits="0" :value="point.delay_ms ?? 0" :min="0" :max="10000" @change="set({ delay_ms: $event || null }, 'Delay')" />
    <NumberField label="For so many years" unit="plain" :digits="0" :value="point.years ?? 10" :min="1" :max="40" @change="set({ years: $event }, 'Years')" />
    <label class="wide switch"><ToggleSwitch :model-value="!!point.services_known" aria-label="Buried services are known" @update:model-value="set({ services_known: $event }, 'Buried services')" /> Buried services are known</label>
    <label class="wide switch"><ToggleSwitch :model-value="!!point.injector" aria-label="An injector at the rack feeds it" @update:model-value="set({ injector: $event }, 'Injector')" /> An injector at the rack feeds it</label>
    <label class="wide">Ground along the line: metres from the rack, height
      <Textarea :model-value="rows(point.profile)" rows="3" fluid class="figure" aria-label="Ground along the line" placeholder="40 -0.5&#10;90 1.2" @change="setProfile" />
    </label>
    <label class="wide choose-file">From a file <input type="file" accept=".csv,.txt,text/csv" aria-label="Ground along the line, from a file" data-testid="profile-file" @change="fromFile($event, takeProfile)"></label>
    <label class="wide">Trees: from, to, height now, growth a year
      <Textarea :model-value="rows(point.trees)" rows="2" fluid class="figure" aria-label="Trees along the line" placeholder="60 75 6 0.4" @change="setTrees" />
    </label>
    <label class="wide">Cellular, as measured there: dBm, quality in dB; of several readings the middle one
      <Textarea :model-value="cell" rows="1" fluid class="figure" aria-label="Cellular, as measured there" placeholder="-98 9" @change="setCell" />
    </label>
    <label class="wide choose-file">From a file <input type="file" accept=".csv,.txt,text/csv" aria-label="Cellular, from a file" data-testid="cell-file" @change="fromFile($event, takeCell)"></label>
    <p v-if="wrong" role="alert" class="wide wrong">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.wrong {
  color: var(--rust);
  margin: 0;
}
</style>
