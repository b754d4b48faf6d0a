<script setup lang="ts">
import Button from 'primevue/button'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, ref, useTemplateRef } from 'vue'
import Choices from '@/controls/Choices.vue'
import { api, file as asFile, taken } from '@/api/client'
import type { BandView, Change, ElementOf, Neighbour, Point, Site } from '@/api/types'
import { useAttempt } from '@/answers/useAttempt'
import { useChannels } from '@/answers/useChannels'
import { useWidths } from '@/answers/useWidths'
import NumberField from '@/controls/NumberField.vue'
import TextField from '@/controls/TextField.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** A band as a row of channels: who is on each, what it would cost the one selected, whose else are heard. */
const emit = defineEmits<{ close: [] }>()
const { view: relief, floor, scanned } = useLooking()
const band = computed(() => relief.value.band)
const store = useDesign()
const attempt = useAttempt()
const selected = computed(() => (store.selection?.kind === 'device' ? store.selection.id : ''))
const { widths } = useWidths(() => band.value === '5')
const { view } = useChannels(() => band.value, () => selected.value)
const SCHOOLS = [{ value: 'plan', label: 'By plan' }, { value: 'controller', label: 'Fences' }]
const file = useTemplateRef<HTMLInputElement>('file')
const faults = ref<string[]>([])
const typing = ref(false)
const typed = ref({ name: '', channel: 6, width_mhz: 20 as Neighbour['width_mhz'], level_dbm: -70 })
const site = computed(() => store.site)
const name = computed(() => view.value?.radios.find((r) => r.id === selected.value)?.name ?? '')
const fence = computed(() => store.shown?.signal.fences?.find((f) => f.band === band.value))
const db = (v: number) => (v > 0 ? `+${v.toFixed(0)}` : v < 0 ? `−${Math.abs(v).toFixed(0)}` : '0')

/** Numbers of 5 MHz on either side of a channel of 20 MHz. */
const HALF = 2
type Occupied = BandView['radios'][number]
/** A column for each channel that is planned or used, lowest first. */
const columns = computed(() => {
  const v = view.value
  if (!v) return []
  const used = v.radios.map((r) => r.channel)
  const hit = (n: Occupied, c: number) => {
    const own = v.radios.find((r) => r.channel === c)
    const [first, last] = own ? [own.first, own.last] : [c - HALF, c + (band.value === '2.4' ? HALF : v.width_mhz / 5 - HALF)]
    return n.first < last && n.last > first
  }
  return [...new Set([...v.options, ...used])].sort((a, b) => a - b).map((c) => ({
    channel: c, radios: v.radios.filter((r) => r.channel === c), neighbours: v.neighbours.filter((n) => hit(n, c)),
    choice: v.choices.find((o) => o.channel === c),
  }))
})
const sharing = computed(() => new Set((store.shown?.signal.radios ?? []).filter((r) => r.band === band.value && r.contenders.length).map((r) => r.device)))
const proof = computed(() => {
  const v = view.value
  if (!v || !v.radios.length) return ''
  const cost = v.cost_db ? `${v.cost_db.toFixed(0)} dB of shared air` : 'no two share air'
  if (v.searching) return `${cost}; a better plan is being looked for`
  if (v.proven) return `${cost}; proven the least there is`
  return `${cost}; no plan goes below ${v.bound_db.toFixed(0)} dB`
})

function set(change: Partial<Site>, what: string): void {
  if (site.value) store.commit(what, [put('site', { ...site.value, ...change })])
}
/** Hold the selected radio on a channel, or leave it to the plan again. */
function hold(channel: number): void {
  if (!selected.value) return
  const held = store.all('radio').find((r) => r.device === selected.value && r.band === band.value)
  if (held?.channel === channel) {
    const freed: Change = held.power_dbm === null && held.on ? { op: 'remove', kind: 'radio', id: held.id } : put('radio', { ...held, channel: null })
    return store.commit(`${name.value} by plan`, [freed])
  }
  const id = held?.id ?? `rad-${selected.value}-${band.value.replace('.', '')}`.slice(0, 40)
  const radio: ElementOf<'radio'> = { id, device: selected.value, band: band.value, on: true, power_dbm: held?.power_dbm ?? null, channel }
  store.commit(`${name.value} on channel ${channel}`, [put('radio', radio)])
}
const place = computed<Point>(() => {
  if (scanned.value) return scanned.value
  const point = store.all('device').find((d) => d.floor === floor.value)
  return (point?.at as Point | undefined) ?? [0, 0]
})
async function read(event: Event): Promise<void> {
  const chosen = (event.target as HTMLInputElement).files?.[0]
  if (!chosen) return
  const params = { path: { project_id: store.id }, query: { floor: floor.value, x: place.value[0], y: place.value[1] } }
  const found = await attempt(() => taken(api.POST('/api/projects/{project_id}/scan', { params, ...asFile(chosen) })))
  if (file.value) file.value.value = ''
  if (!found) return
  faults.value = found.faults.map((f) => `line ${f.line}: ${f.what}`)
  if (found.neighbours.length) store.commit(`${found.neighbours.length} neighbours measured`, found.neighbours.map((n) => put('neighbour', n)))
}
function note(): void {
  const id = store.nextId('neighbour', 'nb')
  const row: Neighbour = { id, floor: floor.value, at: place.value, band: band.value, ...typed.value, name: typed.value.name.trim() || `Channel ${typed.value.channel}` }
  store.commit(`Neighbour ${row.name}`, [put('neighbour', row)])
  typing.value = false
}
function forget(n: Occupied): void {
  const gone = store.all('neighbour').filter((r) => r.band === band.value && r.name === n.name && r.channel === n.channel)
  store.commit(`Neighbour ${n.name} forgotten`, gone.map((r): Change => ({ op: 'remove', kind: 'neighbour', id: r.id })))
}
function sleep(): void {
  const rows = view.value?.sleepers ?? []
  store.commit(`${rows.length} radios of 2.4 GHz asleep`, rows.flatMap((s) => s.changes as Change[]))
}
</script>

<template>
  <BandFrame :high="252" close="Close the channels" aria-label="Channels" data-testid="channels-band" @close="emit('close')">
    <template #side>
      <Choices :model-value="site?.channels_by" :options="SCHOOLS" aria-label="Who sets channels" @update:model-value="set({ channels_by: $event }, 'Who sets channels')" />
      <label v-if="band === '5'" class="tick"><ToggleSwitch :model-value="site?.radar_channels ?? true" aria-label="Plan radar channels" @update:model-value="set({ radar_channels: $event as boolean }, 'Radar channels')" /> Plan radar channels</label>
      <label v-if="band === '2.4'" class="tick"><ToggleSwitch :model-value="site?.four_channels_24 ?? false" :disabled="site?.domain !== 'europe'" aria-label="Four channels" @update:model-value="set({ four_channels_24: $event as boolean }, 'Four channels on 2.4 GHz')" /> Four channels: 1, 5, 9, 13</label>
      <p v-if="fence && site?.channels_by === 'controller'" class="quiet" data-testid="fence">Fences for the optimiser: {{ fence.channels.join(', ') }}; {{ fence.width_mhz }} MHz; {{ fence.least_dbm }} to {{ fence.most_dbm }} dBm</p>
      <template v-if="typing">
        <TextField label="Whose" :value="typed.name" :longest="100" @change="typed.name = $event" />
        <div class="pair">
          <NumberField label="Channel" unit="plain" :digits="0" :value="typed.channel" :min="1" :max="233" @change="typed.channel = $event" />
          <NumberField label="Level" unit="plain" suffix=" dBm" :digits="0" :value="typed.level_dbm" :min="-120" :max="0" @change="typed.level_dbm = $event" />
        </div>
        <div class="row"><Button label="Note it" size="small" @click="note" /><Button label="Leave" size="small" text @click="typing = false" /></div>
      </template>
      <template v-else>
        <div class="row apart">
          <button class="plain link" @click="file?.click()"><i class="pi pi-upload" /> Read a scan</button>
          <button class="plain link" @click="typing = true"><i class="pi pi-pencil" /> Type in a neighbour</button>
        </div>
        <p v-if="scanned || band !== '5'" class="quiet">Measured {{ scanned ? 'where you pressed' : 'at an access point here; press the sheet for another place' }}.</p>
      </template>
      <table v-if="band === '5' && widths && !typing" class="widths" data-testid="widths">
        <thead><tr><th>MHz</th><th>share air</th><th>rooms met</th><th>busiest</th></tr></thead>
        <tbody>
          <tr v-for="w in widths.rows" :key="w.width_mhz" :class="{ now: !w.changes.length }">
            <td><button v-if="w.changes.length" class="plain link figure" :aria-label="`Plan ${w.width_mhz} MHz`" @click="store.commit(`Channels of ${w.width_mhz} MHz`, w.changes as Change[])">{{ w.width_mhz }}</button><b v-else class="figure">{{ w.width_mhz }}</b></td>
            <td class="figure" :class="w.sharing.length ? 'near' : 'met'">{{ w.sharing.length || 'none' }}</td>
            <td class="figure">{{ w.rooms_met }}</td>
            <td class="figure" :class="w.verdict === 'met' ? '' : w.verdict">{{ Math.round(100 * w.busiest) }} %</td>
          </tr>
        </tbody>
      </table>
      <input ref="file" type="file" accept=".csv,.txt,text/csv" hidden aria-label="Scan of the air" @change="read">
      <p v-for="f in faults.slice(0, 4)" :key="f" class="near">{{ f }}</p>
    </template>
    <div class="found">
      <p class="head"><b :class="view?.cost_db ? 'near' : 'met'">{{ proof }}</b><span v-if="name" class="quiet">Press a channel to hold {{ name }} there; below it what that adds, others making way.</span><span v-else class="quiet">Select an access point to weigh its channels.</span></p>
      <div class="columns" tabindex="0" role="region" aria-label="Channels and who is on them">
        <div v-for="c in columns" :key="c.channel" class="column" :data-channel="c.channel">
          <button class="plain channel" :disabled="!name" :aria-label="name ? `Hold ${name} on channel ${c.channel}` : `Channel ${c.channel}`" @click="hold(c.channel)">
            <span class="figure">{{ c.channel }}</span>
            <span v-if="c.choice" class="cost" :class="c.choice.follows_db > 0 ? 'near' : 'met'">{{ db(c.choice.follows_db) }} dB</span>
          </button>
          <div class="radios">
          <button
            v-for="r in c.radios" :key="r.id" class="plain radio" :class="{ held: r.held, shares: sharing.has(r.id), chosen: r.id === selected }" :title="r.held ? 'held by hand' : 'by plan'"
            @click="store.selection = { kind: 'device', id: r.id }"
          >{{ r.name }}</button>
          </div>
          <span v-for="n in c.neighbours" :key="n.id" class="neighbour" :title="`${n.name}, channel ${n.channel}`">
            <span>{{ n.name }}</span> <span class="figure">{{ n.level_dbm?.toFixed(0).replace('-', '−') }}</span>
            <button class="plain gone" :aria-label="`Forget ${n.name}`" @click="forget(n)">×</button>
          </span>
        </div>
        <p v-if="view && !view.radios.length" class="quiet">No radio is on this band.</p>
      </div>
      <p v-if="band === '5' && widths" class="allowed" data-testid="width-allowed">The air allows {{ widths.why }}.</p>
      <div v-if="view?.sleepers.length" class="asleep">
        <Button :label="view.sleepers.length === 1 ? 'Let it sleep' : `Let ${view.sleepers.length} sleep`" size="small" outlined @click="sleep" />
        <span>May sleep on 2.4 GHz: <template v-for="(s, i) in view.sleepers" :key="s.device">{{ i ? '; ' : '' }}<b>{{ s.name }}</b> ({{ s.covers.join(', ') }} {{ s.covers.length === 1 ? 'covers' : 'cover' }})</template></span>
      </div>
    </div>
  </BandFrame>
</template>

<style scoped>
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 12.5px;
}
.apart {
  justify-content: space-between;
}
.widths {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
}
.widths th {
  font: 400 11px var(--condensed);
  color: var(--granite);
  text-align: right;
}
.widths td.figure {
  font-size: 12.5px;
}
.widths td {
  text-align: right;
  padding: 0 0 0 8px;
  border-top: 1px solid var(--granite-light);
}
.widths td:first-child,
.widths th:first-child {
  text-align: left;
}
.widths .now {
  background: var(--heather-wash);
}
.pair,
.row {
  display: flex;
  gap: 6px;
}
.link {
  color: var(--heather);
  min-height: 26px;
  font-size: 12.5px;
}
.link:hover {
  text-decoration: underline;
}
.found {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  padding: 6px 10px;
}
.head {
  display: flex;
  gap: 14px;
  align-items: baseline;
  padding-right: 26px;
  font-size: 12.5px;
}
.columns {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: 5px;
  overflow: auto;
  padding-top: 6px;
}
.column {
  flex: 1 1 0;
  min-width: 58px;
  max-width: 190px;
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.channel {
  display: grid;
  justify-items: center;
  align-content: start;
  min-height: 40px;
  border-bottom: 2px solid var(--ink);
  font-weight: 600;
}
.channel:not(:disabled):hover {
  background: var(--heather-wash);
}
.cost {
  font: 500 11.5px var(--mono);
}
.radios {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(56px, 1fr));
  gap: 3px;
}
.radio {
  min-height: 24px;
  padding: 0 4px;
  text-align: center;
  background: var(--tint-2);
  border-radius: 2px;
  font: 600 12px var(--condensed);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.radio.shares {
  background: repeating-linear-gradient(135deg, var(--tint-2) 0 5px, color-mix(in srgb, var(--rust) 30%, var(--tint-2)) 5px 8px);
}
.radio.held {
  box-shadow: inset 3px 0 0 var(--heather);
}
.radio.chosen {
  outline: 2px solid var(--heather);
}
.neighbour {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 3px;
  padding-left: 4px;
  min-height: 24px;
  border: 1px dashed var(--granite);
  border-radius: 2px;
  font: 400 11.5px var(--condensed);
  color: var(--granite);
  white-space: nowrap;
  overflow: hidden;
}
.neighbour span:first-child {
  flex: 1 0 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.gone {
  margin-left: auto;
  min-width: 24px;
}
.allowed {
  padding-top: 4px;
  font: 400 12px/1.35 var(--condensed);
}
.asleep {
  display: flex;
  align-items: center;
  gap: 10px;
  padding-top: 4px;
  font-size: 12px;
}
.asleep :deep(button) {
  flex: none;
}
</style>
