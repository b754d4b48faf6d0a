<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Duct } from '@/api/types'
import { pathLength } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import NumberField from '@/controls/NumberField.vue'
import { useFields } from './useFields'

const props = defineProps<{ duct: Duct }>()
const DUG: { value: NonNullable<Duct['dug']>; label: string }[] = [
  { value: 'loam', label: 'Dug by hand, loam' }, { value: 'clay', label: 'Dug by hand, clay' }, { value: 'stony', label: 'Dug by hand, stony ground' },
  { value: 'machine', label: 'Dug by a small machine' }, { value: 'plough', label: 'Ploughed in' },
  { value: 'paving', label: 'Across paving' }, { value: 'drive', label: 'Across a drive' }, { value: 'there', label: 'Lies there already' },
]
const store = useDesign()
const { set, setName } = useFields('duct', () => props.duct)
const floors = computed(() => {
  const several = store.all('building').length > 1
  return store.floors.map((f) => ({
    value: f.id,
    label: several ? `${store.find('building', f.building)!.name}, ${f.name}` : f.name,
  }))
})
</script>

<template>
  <p class="quiet">Ask for the buried services before digging; check your local code for depth and marking.</p>
  <dl class="figures">
    <dt>Length on plan</dt><dd class="figure" data-figure="duct">{{ length(pathLength(duct.path)) }}</dd>
  </dl>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="duct.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <label class="wide">From <Choice :model-value="duct.from_floor" :options="floors" fluid aria-label="From" @update:model-value="set({ from_floor: $event }, 'Start')" /></label>
    <label class="wide">To <Choice :model-value="duct.to_floor" :options="floors" fluid aria-label="To" @update:model-value="set({ to_floor: $event }, 'End')" /></label>
    <label class="wide">In the ground <Choice :model-value="duct.dug ?? 'loam'" :options="DUG" fluid aria-label="In the ground" @update:model-value="set({ dug: $event }, 'Digging')" /></label>
    <NumberField label="Depth" :value="duct.depth_m" :min="0" :max="5" @change="set({ depth_m: $event }, 'Depth')" />
  </div>
</template>
