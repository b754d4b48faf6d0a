<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import type { Light, MainsRoute, Panel, Point, Socket } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import TextField from '@/controls/TextField.vue'
import { put } from '@/document/edits'
import { pathLength } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

type Kind = 'panel' | 'socket' | 'mains_route' | 'light'
const props = defineProps<{ kind: Kind; thing: Panel | Socket | MainsRoute | Light }>()
const store = useDesign()
const STATES: { value: NonNullable<Socket['state']>; label: string }[] = [
  { value: 'keep', label: 'There already' }, { value: 'new', label: 'To be made, by an electrician' }, { value: 'retire', label: 'Not to be used' },
]
const CAUTION: Record<Kind, string> = {
  panel: 'Nothing stands in the space before it. Only a licensed electrician opens it; check your local code.',
  socket: 'A socket that is missing is made by a licensed electrician.',
  mains_route: 'Data cable keeps off it and crosses it square. Locate it before you drill.',
  light: 'Access points keep off it.',
}
const panels = computed(() => [{ value: 'near', label: 'the nearest' }, ...store.all('panel').map((p) => ({ value: p.id, label: p.name }))])
const guess = computed(() => store.shown?.plan.mains.find((m) => m.socket === props.thing.id))

function set(change: object, what: string): void {
  store.commit(`${what} of ${props.thing.name}`, [put(props.kind, { ...props.thing, ...change })])
}

function setName(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.thing.name) set({ name }, 'Name')
}
</script>

<template>
  <p class="quiet">{{ CAUTION[kind] }}</p>
  <dl v-if="'path' in thing || guess" class="figures">
    <template v-if="'path' in thing"><dt>Length on plan</dt><dd class="figure">{{ length(pathLength(thing.path)) }}</dd></template>
    <template v-if="guess"><dt>From its panel, a guess</dt><dd class="figure" data-figure="mains">{{ length(guess.length_m) }}</dd></template>
  </dl>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="thing.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <template v-if="'at' in thing">
      <NumberField label="East" :value="thing.at[0]" @change="set({ at: [$event, thing.at[1]] as Point }, 'Place')" />
      <NumberField label="North" :value="thing.at[1]" @change="set({ at: [thing.at[0], $event] as Point }, 'Place')" />
    </template>
    <NumberField v-if="'azimuth_deg' in thing" label="Faces, from north" unit="plain" suffix="°" :digits="0" :value="thing.azimuth_deg" :min="-360" :max="360" @change="set({ azimuth_deg: $event }, 'Facing')" />
    <template v-if="'circuit' in thing">
      <NumberField label="Height" :value="thing.height_m" :min="0" :max="30" @change="set({ height_m: $event }, 'Height')" />
      <label class="wide">State <Choice :model-value="thing.state ?? 'keep'" :options="STATES" fluid aria-label="State" @update:model-value="set({ state: $event }, 'State')" /></label>
      <label class="wide">Panel <Choice :model-value="thing.panel ?? 'near'" :options="panels" fluid aria-label="Panel" @update:model-value="set({ panel: $event === 'near' ? null : $event }, 'Panel')" /></label>
      <TextField class="wide" label="Circuit" :value="thing.circuit" :longest="120" @change="set({ circuit: $event }, 'Circuit')" />
    </template>
  </div>
</template>
