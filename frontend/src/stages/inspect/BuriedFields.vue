<script setup lang="ts">
import InputText from 'primevue/inputtext'
import ToggleSwitch from 'primevue/toggleswitch'
import type { BuriedService } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import { CARRIED } from '@/stages/plan/site/carried'
import { useFields } from './useFields'

const props = defineProps<{ service: BuriedService }>()
const { set, setName } = useFields('buried_service', () => props.service)
const carries = Object.entries(CARRIED).map(([value, { name }]) => ({ value: value as keyof typeof CARRIED, label: name }))
</script>

<template>
  <p class="quiet">Somebody else's, and not this job's work. Near to it the ground is opened by hand, once it is located.</p>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="service.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <label class="wide">Carries <Choice :model-value="service.carries ?? 'unknown'" :options="carries" fluid aria-label="Carries" @update:model-value="set({ carries: $event }, 'What is carried')" /></label>
    <NumberField label="Depth, 0 where nobody knows" name="Depth" :value="service.depth_m ?? 0" :min="0" :max="5" @change="set({ depth_m: $event || null }, 'Depth')" />
    <label class="switch"><ToggleSwitch :model-value="!!service.found" aria-label="Located on the ground" @update:model-value="set({ found: $event }, 'Locating')" /> Located on the ground</label>
  </div>
</template>
