<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, EquipmentRoom, Point, Riser } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import RoomFigures from './RoomFigures.vue'
import NumberField from '@/controls/NumberField.vue'

const props = defineProps<{ kind: 'riser' | 'equipment_room'; place: Riser | EquipmentRoom }>()
const store = useDesign()

const others = computed(() => (props.kind === 'riser' ? [] : store.all('equipment_room').filter((r) => r.id !== props.place.id)))
const said = computed(() => store.all('uplink').find((u) => u.room === props.place.id))
const to = computed(() => said.value?.to ?? store.shown?.cable.uplinks.find((u) => u.room === props.place.id)?.to_room ?? '')
const upper = computed(() => [{ value: '', label: 'the line' }, ...others.value.map((r) => ({ value: r.id, label: r.name }))])
const MEDIA = [{ value: 'plan', label: 'by plan' }, { value: 'copper', label: 'copper' }, { value: 'fibre', label: 'fibre' }]

/** Say where a room leads, or that the line comes in there: then every other one leads to it. */
function lead(change: Partial<ElementOf<'uplink'>>): void {
  const room = props.place.id
  const mine = { id: said.value?.id ?? store.nextId('uplink', 'up'), room, to: to.value, medium: said.value?.medium ?? null, ...change }
  const label = `Way up of ${props.place.name}`
  if (mine.to) store.commit(label, [put('uplink', mine)])
  else {
    const first = store.all('equipment_room').find((r) => r.id !== room && !store.all('uplink').some((u) => u.room === r.id))
    const drop = said.value ? [{ op: 'remove' as const, kind: 'uplink' as const, id: said.value.id }] : []
    const id = store.nextId('uplink', 'up')
    store.commit(label, [...drop, ...(first ? [put('uplink', { id, room: first.id, to: room, medium: null })] : [])])
  }
}

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
  <RoomFigures v-if="kind === 'equipment_room'" :room="place as EquipmentRoom" />
  <div class="fields">
    <label class="wide">Name <InputText :model-value="place.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <NumberField label="East" :value="place.at[0]" @change="set({ at: [$event, place.at[1]] as Point }, 'Place')" />
    <NumberField label="North" :value="place.at[1]" @change="set({ at: [place.at[0], $event] as Point }, 'Place')" />
    <NumberField v-if="'rack_height_m' in place" label="Rack height" :value="place.rack_height_m" :min="0" :max="3" @change="set({ rack_height_m: $event }, 'Height')" />
    <template v-if="others.length">
      <label class="wide">Leads up to
        <Choice :model-value="to" :options="upper" fluid aria-label="Leads up to" @update:model-value="lead({ to: $event })" />
      </label>
      <label v-if="to" class="wide">Over
        <Choice :model-value="said?.medium ?? ('plan' as const)" :options="MEDIA" fluid aria-label="Over" @update:model-value="lead({ medium: $event === 'plan' ? null : $event })" />
      </label>
    </template>
    <template v-if="'lowest_level' in place">
      <NumberField label="Lowest level" unit="plain" :digits="0" :value="place.lowest_level" :min="-9" :max="50" @change="set({ lowest_level: $event }, 'Levels')" />
      <NumberField label="Highest level" unit="plain" :digits="0" :value="place.highest_level" :min="-9" :max="50" @change="set({ highest_level: $event }, 'Levels')" />
    </template>
  </div>
</template>
