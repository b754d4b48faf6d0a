<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Device, ElementOf, Point } from '@/api/types'
import { put } from '@/document/edits'
import { hasAir, modelsOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import type { Stage } from '@/stages/registry'
import NumberField from '@/controls/NumberField.vue'

const props = defineProps<{ device: Device; stage: Stage }>()
const store = useDesign()

const models = computed(() => modelsOf(store.catalogue, props.device.kind).filter((m) => !m.old === (props.device.state === 'new') || m.id === props.device.model))
const MOUNTS = ['ceiling', 'wall', 'desk', 'pole'].map((m) => ({ value: m, label: m }))
const CATEGORIES = [
  { value: 'plan', label: 'by plan' },
  ...['5e', '6', '6A'].map((c) => ({ value: c, label: `category ${c}` })),
]
/** Follows the mark while it is dragged. */
const at = computed(() => (store.ghost?.id === props.device.id ? store.ghost.at : props.device.at))
const said = computed(() => store.all('run').find((r) => r.device === props.device.id))

function set(change: Partial<Device>, what: string): void {
  store.commit(`${what} of ${props.device.name}`, [put('device', { ...props.device, ...change })])
}

function setName(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.device.name) set({ name }, 'Name')
}

const rooms = computed(() => [
  { value: 'plan', label: 'by plan' },
  ...store.all('equipment_room').map((r) => ({ value: r.id, label: r.name })),
])

function say(change: Partial<ElementOf<'run'>>, what: string): void {
  const id = `r-${props.device.id}`.slice(0, 40)
  const run = said.value ?? { id, device: props.device.id, category: null, cables: null, equipment_room: null, over_air: false }
  store.commit(`${what} to ${props.device.name}`, [put('run', { ...run, ...change })])
}
</script>

<template>
  <div class="fields">
    <label class="wide">Model
      <Choice by="id" :model-value="device.model" :options="models" fluid aria-label="Model" @update:model-value="set({ model: $event }, 'Model')" />
    </label>
    <label v-if="stage === 'cable'" class="wide">Category
      <Choice :model-value="said?.category ?? ('plan' as const)" :options="CATEGORIES" fluid aria-label="Category" @update:model-value="say({ category: $event === 'plan' ? null : $event }, 'Category')" />
    </label>
    <label v-if="stage === 'cable' && rooms.length > 2" class="wide">From the rack
      <Choice :model-value="said?.equipment_room ?? 'plan'" :options="rooms" fluid aria-label="From the rack" @update:model-value="say({ equipment_room: $event === 'plan' ? null : $event }, 'Rack')" />
    </label>
    <template v-if="stage === 'plan' || stage === 'signal'">
      <label>Name <InputText :model-value="device.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
      <label>Mount
        <Choice :model-value="device.mount" :options="MOUNTS" fluid aria-label="Mount" @update:model-value="set({ mount: $event }, 'Mount')" />
      </label>
      <NumberField label="East" :value="at[0]" @change="set({ at: [$event, at[1]] as Point }, 'Place')" />
      <NumberField label="North" :value="at[1]" @change="set({ at: [at[0], $event] as Point }, 'Place')" />
      <NumberField label="Height" :value="device.height_m" :min="0" :max="60" @change="set({ height_m: $event }, 'Height')" />
      <NumberField label="Azimuth" :value="device.azimuth_deg" unit="degrees" :min="0" :max="360" :digits="0" @change="set({ azimuth_deg: $event }, 'Azimuth')" />
      <NumberField v-if="hasAir(store.catalogue, device)" label="Tilt" :value="device.tilt_deg" unit="degrees" :min="-90" :max="90" :digits="0" @change="set({ tilt_deg: $event }, 'Tilt')" />
    </template>
  </div>
</template>
