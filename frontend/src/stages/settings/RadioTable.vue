<script setup lang="ts">
import { computed, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, RadioSheet, SettingsSheet, SignalChapter } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'

// What a channel's place in the list may hold besides a channel.
const BY_PLAN = 0
const OFF = -1

const props = defineProps<{ sheet: SettingsSheet; signal: SignalChapter }>()
const store = useDesign()
const band = ref<RadioSheet['band']>('5')
const radios = computed(() => props.signal.radios ?? [])
const bands = computed(() => [...new Set(radios.value.map((r) => r.band))].map((b) => ({ value: b, label: `${b} GHz` })))
const fence = computed(() => (props.sheet.optimiser ? props.signal.fences?.find((f) => f.band === band.value) : undefined))
const rows = computed(() => radios.value.filter((r) => r.band === band.value))
// What is held though the domain has it no more stays in the list until it is changed.
const channels = computed(() => {
  const held = rows.value.flatMap((r) => said(r)?.channel ?? [])
  return [...new Set([...(props.signal.channels?.[band.value] ?? []), ...held])].sort((a, b) => a - b)
})
const options = computed(() => [
  { value: BY_PLAN, label: 'by plan' },
  ...channels.value.map((c) => ({ value: c, label: `channel ${c}` })),
  { value: OFF, label: 'off' },
])

function said(row: RadioSheet): ElementOf<'radio'> | undefined {
  return store.all('radio').find((r) => r.device === row.device && r.band === row.band)
}

function chosen(row: RadioSheet): number {
  const held = said(row)
  return held && !held.on ? OFF : (held?.channel ?? BY_PLAN)
}

function set(row: RadioSheet, value: number): void {
  say(row, { on: value !== OFF, channel: value === OFF || value === BY_PLAN ? null : value })
}

/** Power by the step of its sheet, for who wants it louder or weaker than planned. */
function powers(row: RadioSheet) {
  const device = store.find('device', row.device)
  const radio = device ? store.catalogue?.devices[device.kind]?.[device.model]?.air?.radios[row.band] : undefined
  const steps = radio ? Array.from({ length: Math.floor((radio.max_power_dbm - radio.min_power_dbm) / (radio.step_db ?? 1)) + 1 }, (_, k) => radio.max_power_dbm - k * (radio.step_db ?? 1)) : []
  const held = said(row)?.power_dbm
  const all = held != null && !steps.includes(held) ? [held, ...steps] : steps
  return [{ value: BY_RULE, label: 'by plan' }, ...all.map((p) => ({ value: p, label: `${p} dBm` }))]
}
const BY_RULE = -99
const power = (row: RadioSheet) => said(row)?.power_dbm ?? BY_RULE

/** What was said of a radio; where nothing is left of it the plan has it again. */
function say(row: RadioSheet, change: Partial<ElementOf<'radio'>>): void {
  const held = said(row)
  const id = held?.id ?? `rad-${row.device}-${row.band.replace('.', '')}`.slice(0, 40)
  const radio: ElementOf<'radio'> = { on: true, channel: null, power_dbm: null, ...held, id, device: row.device, band: row.band, ...change }
  const nothing = radio.on && radio.channel === null && radio.power_dbm === null
  if (!nothing) store.commit(`Radio of ${row.name}`, [put('radio', radio)])
  else if (held) store.commit(`Radio of ${row.name} by plan`, [{ op: 'remove', kind: 'radio', id: held.id }])
}

/** A reason that most rows share is told once, over them; a row has what is its own. */
const SHARED = 3
function commonest(of: (row: RadioSheet) => string): { text: string; count: number } | null {
  const counts = new Map<string, number>()
  for (const row of rows.value) counts.set(of(row), (counts.get(of(row)) ?? 0) + 1)
  const [text, count] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['', 0]
  return count >= SHARED ? { text, count } : null
}
const ofPower = computed(() => commonest((r) => r.power_reason))
const ofChannel = computed(() => commonest((r) => r.channel_reason))
const own = (row: RadioSheet) =>
  [row.channel_reason !== ofChannel.value?.text ? row.channel_reason : '', row.power_reason !== ofPower.value?.text ? `power: ${row.power_reason}` : ''].filter(Boolean).join('; ')
</script>

<template>
  <p v-if="!radios.length" class="quiet">No radio is planned yet. Place an access point on the plan.</p>
  <template v-else>
  <div class="head">
    <Choice v-model="band" :options="bands" aria-label="Band" />
    <p class="quiet">
      <template v-if="signal.channels_note">{{ signal.channels_note }}. </template>Mesh {{ sheet.mesh ? 'on' : 'off' }}: {{ sheet.mesh_reason }}. Optimiser {{ sheet.optimiser ? 'on' : 'off' }}: {{ sheet.optimiser_reason }}.
      <template v-if="fence">Fences: channels {{ fence.channels.join(', ') }}; {{ fence.width_mhz }} MHz; {{ fence.least_dbm }} to {{ fence.most_dbm }} dBm.</template>
      Check the national rules in force.
    </p>
  </div>
  <p v-if="ofPower || ofChannel" class="once" data-testid="told-once">
    <template v-if="ofChannel"><b>{{ ofChannel.count }} of {{ rows.length }}</b> {{ ofChannel.text }}. </template><template v-if="ofPower"><b>{{ ofPower.count }} of {{ rows.length }}</b>: {{ ofPower.text }}.</template>
  </p>
  <table class="ledger">
    <thead>
      <tr>
        <th>Access point</th><th class="number">Channel</th><th class="number">Width</th><th class="number">Power</th>
        <th class="number">EIRP</th><th>Channel by</th><th>Power by</th><th>Its own reason</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.device" :data-radio="row.device">
        <td>{{ row.name }}</td>
        <td class="number">{{ row.on ? row.channel : 'off' }}<span v-if="row.radar" title="may have to move for radar"> radar</span></td>
        <td class="number">{{ row.width_mhz }} MHz</td>
        <td class="number">{{ row.power_dbm }} dBm</td>
        <td class="number">{{ row.eirp_dbm }} of {{ row.cap_dbm }}</td>
        <td>
          <Choice
            :model-value="chosen(row)" :options="options"
            :aria-label="`Channel of ${row.name}`" @update:model-value="set(row, $event)"
          />
        </td>
        <td><Choice :model-value="power(row)" :options="powers(row)" :aria-label="`Power of ${row.name}`" @update:model-value="say(row, { power_dbm: $event === BY_RULE ? null : $event })" /></td>
        <td class="why">{{ own(row) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="!rows.length" class="quiet">No radio on this band. Place an access point on the plan.</p>
  </template>
</template>

<style scoped>
.head {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 10px;
}
.once {
  margin: 0 0 10px;
  padding: 6px 10px;
  background: var(--paper-deep);
}
.why {
  font: 400 12px/1.35 var(--condensed);
  color: var(--granite);
  min-width: 170px;
}
td {
  vertical-align: middle !important;
}
</style>
