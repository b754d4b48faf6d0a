<script setup lang="ts">
import InputText from 'primevue/inputtext'
import type { EquipmentRoom, Point, Riser } from '@/api/types'
import { put } from '@/design/edits'
import { useDesign } from '@/design/store'
import { length } from '@/design/units'
import NumberField from '@/controls/NumberField.vue'

const props = defineProps<{ kind: 'riser' | 'equipment_room'; place: Riser | EquipmentRoom }>()
const store = useDesign()

function set(change: object, what: string): void {
  store.commit(`${what} of ${props.place.name}`, [put(props.kind, { ...props.place, ...change })])
}

function setName(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.place.name) set({ name }, 'Name')
}
</script>

<template>
  <p v-if="kind === 'equipment_room'" class="quiet">
    Keep {{ length(0.9) }} clear in front of any electrical panel; check your local code.
  </p>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="place.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <NumberField label="East" :value="place.at[0]" @change="set({ at: [$event, place.at[1]] as Point }, 'Place')" />
    <NumberField label="North" :value="place.at[1]" @change="set({ at: [place.at[0], $event] as Point }, 'Place')" />
    <NumberField v-if="'rack_height_m' in place" label="Rack height" :value="place.rack_height_m" :min="0" :max="3" @change="set({ rack_height_m: $event }, 'Height')" />
    <template v-if="'lowest_level' in place">
      <NumberField label="Lowest level" unit="plain" :digits="0" :value="place.lowest_level" :min="-9" :max="50" @change="set({ lowest_level: $event }, 'Levels')" />
      <NumberField label="Highest level" unit="plain" :digits="0" :value="place.highest_level" :min="-9" :max="50" @change="set({ highest_level: $event }, 'Levels')" />
    </template>
  </div>
</template>
