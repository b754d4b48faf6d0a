<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Space } from '@/api/types'
import { put } from '@/design/edits'
import { useDesign } from '@/design/store'
import { area, dbm, percent } from '@/design/units'

const props = defineProps<{ space: Space }>()
const store = useDesign()
const verdict = computed(() => store.shown?.rooms.find((r) => r.space === props.space.id))
const USES = [
  { value: 'calls', label: 'Calls and video' },
  { value: 'everyday', label: 'Everyday data' },
  { value: 'sensors', label: 'Sensors only' },
  { value: 'none', label: 'Not needed' },
]
const OVERHEADS = [
  { value: 'floor', label: 'As the floor' },
  { value: 'ceiling_void', label: 'Ceiling void' },
  { value: 'attic', label: 'Attic' },
  { value: 'joists', label: 'Through joists' },
  { value: 'raceway', label: 'Surface raceway' },
]
const WORD = { met: 'meets its use', near: 'nearly meets its use', not_met: 'does not meet its use', not_needed: 'not needed' }

function set(change: Partial<Space>, what: string): void {
  store.commit(`${what} of ${props.space.name}`, [put('space', { ...props.space, ...change })])
}

function setName(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.space.name) set({ name }, 'Name')
}
</script>

<template>
  <dl v-if="verdict" class="figures">
    <dt>Verdict</dt><dd data-figure="verdict">{{ WORD[verdict.verdict] }}</dd>
    <dt>Area</dt><dd class="figure" data-figure="area">{{ area(verdict.area_m2) }}</dd>
    <template v-if="verdict.verdict !== 'not_needed'">
      <dt>First, {{ verdict.target_first_dbm }} dBm on {{ verdict.band }} GHz</dt>
      <dd class="figure" data-figure="first">{{ percent(verdict.share_first) }}</dd>
      <dt>Worst first</dt><dd class="figure">{{ dbm(verdict.worst_first_dbm) }}</dd>
      <template v-if="verdict.target_second_dbm !== null">
        <dt>Second, {{ verdict.target_second_dbm }} dBm</dt>
        <dd class="figure" data-figure="second">{{ percent(verdict.share_second) }}</dd>
        <dt>Worst second</dt><dd class="figure">{{ dbm(verdict.worst_second_dbm) }}</dd>
      </template>
      <dt>Signal over noise, worst</dt><dd class="figure">{{ verdict.worst_snr_db?.toFixed(0) }} dB</dd>
    </template>
  </dl>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="space.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <label>Use
      <Select :model-value="space.use" :options="USES" option-label="label" option-value="value" size="small" fluid aria-label="Use" @update:model-value="set({ use: $event }, 'Use')" />
    </label>
    <label>Cable overhead
      <Select :model-value="space.overhead ?? 'floor'" :options="OVERHEADS" option-label="label" option-value="value" size="small" fluid aria-label="Cable overhead" @update:model-value="set({ overhead: $event === 'floor' ? null : $event }, 'Overhead')" />
    </label>
  </div>
</template>
