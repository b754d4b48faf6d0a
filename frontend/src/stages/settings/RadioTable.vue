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
  const held = said(row)
  if (value === BY_PLAN) {
    if (held) store.commit(`Radio of ${row.name} by plan`, [{ op: 'remove', kind: 'radio', id: held.id }])
    return
  }
  const id = held?.id ?? `rad-${row.device}-${row.band.replace('.', '')}`.slice(0, 40)
  const radio: ElementOf<'radio'> = {
    id, device: row.device, band: row.band, power_dbm: held?.power_dbm ?? null,
    on: value !== OFF, channel: value === OFF ? null : value,
  }
  store.commit(`Radio of ${row.name}`, [put('radio', radio)])
}
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
  <table class="ledger">
    <thead>
      <tr>
        <th>Access point</th><th class="number">Channel</th><th class="number">Width</th><th class="number">Power</th>
        <th class="number">EIRP</th><th>Set</th><th>Why</th>
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
        <td class="why">{{ row.channel_reason }}. Power: {{ row.power_reason }}.</td>
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
.why {
  font: 400 12px/1.35 var(--condensed);
  color: var(--granite);
  min-width: 170px;
}
td {
  vertical-align: middle !important;
}
</style>
