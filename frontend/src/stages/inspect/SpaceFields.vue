<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Space } from '@/api/types'
import { useDesign } from '@/document/store'
import { area, dbm, percent } from '@/document/units'
import { OVERHEADS } from '../overheads'
import NumberField from '@/controls/NumberField.vue'
import { useFields } from './useFields'

const props = defineProps<{ space: Space }>()
const store = useDesign()
const { set, setName } = useFields('space', () => props.space)
const verdict = computed(() => store.shown?.signal.rooms.find((r) => r.space === props.space.id))
const USES = [
  { value: 'calls', label: 'Calls and video' },
  { value: 'everyday', label: 'Everyday data' },
  { value: 'sensors', label: 'Sensors only' },
  { value: 'none', label: 'Not needed' },
]
const OWN_OR_FLOORS = [{ value: 'floor', label: 'As the floor' }, ...OVERHEADS]
const ceiling = computed(
  () => props.space.ceiling_height_m ?? store.find('floor', props.space.floor)?.ceiling_height_m ?? 2.7,
)
const WORD = { met: 'meets its use', near: 'nearly meets its use', not_met: 'does not meet its use', not_needed: 'not needed' }
</script>

<template>
  <dl v-if="verdict" class="figures">
    <dt>Verdict</dt><dd data-figure="verdict">{{ WORD[verdict.verdict] }}</dd>
    <dt>Area</dt><dd class="figure" data-figure="area">{{ area(verdict.area_m2) }}</dd>
    <template v-if="verdict.verdict !== 'not_needed'">
      <dt>Primary, {{ verdict.target_first_dbm }} dBm on {{ verdict.band }} GHz</dt>
      <dd class="figure" data-figure="first">{{ percent(verdict.share_first) }}</dd>
      <dt>Judged by</dt><dd>{{ verdict.client }}, <span class="figure">{{ dbm(verdict.client_dbm) }}</span></dd>
      <dt>Worst primary</dt><dd class="figure">{{ dbm(verdict.worst_first_dbm) }}</dd>
      <template v-if="verdict.target_second_dbm !== null">
        <dt>Secondary, {{ verdict.target_second_dbm }} dBm</dt>
        <dd class="figure" data-figure="second">{{ percent(verdict.share_second) }}</dd>
        <dt>Worst secondary</dt><dd class="figure">{{ dbm(verdict.worst_second_dbm) }}</dd>
      </template>
      <dt>All targets met</dt><dd class="figure" data-figure="share">{{ percent(verdict.share) }}</dd>
      <dt>With {{ verdict.margin_db }} dB in hand</dt><dd class="figure" data-figure="margin">{{ percent(verdict.share_margin) }}</dd>
      <dt>Chance at the worst spot</dt><dd class="figure" data-figure="chance">{{ percent(verdict.chance) }}</dd>
      <dt>Signal over noise, worst</dt><dd class="figure">{{ verdict.worst_snr_db?.toFixed(0) }} dB</dd>
    </template>
  </dl>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="space.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <label>Use
      <Choice :model-value="space.use" :options="USES" fluid aria-label="Use" @update:model-value="set({ use: $event }, 'Use')" />
    </label>
    <label>Cable overhead
      <Choice :model-value="space.overhead ?? ('floor' as const)" :options="OWN_OR_FLOORS" fluid aria-label="Cable overhead" @update:model-value="set({ overhead: $event === 'floor' ? null : $event }, 'Overhead')" />
    </label>
    <NumberField label="Ceiling height" :value="ceiling" :min="1.6" :max="30" @change="set({ ceiling_height_m: $event }, 'Ceiling')" />
    <div class="ticks wide">
      <label><Checkbox :model-value="space.outdoor" binary @update:model-value="set({ outdoor: $event as boolean }, 'Outdoors')" /> Outdoors</label>
      <label><Checkbox :model-value="space.open_above" binary @update:model-value="set({ open_above: $event as boolean }, 'Opening')" /> No slab above</label>
      <label><Checkbox :model-value="space.stairs" binary @update:model-value="set({ stairs: $event as boolean }, 'Stairs')" /> Stairs lead up from here</label>
      <label><Checkbox :model-value="space.water ?? false" binary @update:model-value="set({ water: $event as boolean }, 'Water')" /> Water runs here</label>
      <label><Checkbox :model-value="space.locks ?? false" binary @update:model-value="set({ locks: $event as boolean }, 'Lock')" /> It is locked</label>
    </div>
  </div>
</template>

<style scoped>
.fields .ticks {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 10px;
}
.fields .ticks label {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12px;
}
</style>
